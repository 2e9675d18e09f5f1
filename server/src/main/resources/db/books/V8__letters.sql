-- How stern the latest letter was that asked for a debt, and the one before it, for where that never left; empty for none.
CREATE TABLE last_letter (
  debt_id BIGINT PRIMARY KEY REFERENCES debt (id) ON DELETE CASCADE,
  tone VARCHAR(10) NOT NULL,
  before_it VARCHAR(10) NOT NULL
);
-- Who wrote a letter: a person, or the application by itself.
ALTER TABLE message ADD COLUMN made_by VARCHAR(120) DEFAULT 'by itself' NOT NULL;
-- When a person said that an invoice was given to its client otherwise than by mail from here.
ALTER TABLE invoice ADD COLUMN given_on DATE;
