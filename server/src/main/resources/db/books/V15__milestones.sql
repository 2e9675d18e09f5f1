-- Named points of the work that installments wait for: once one is reached, their days count from then.
CREATE TABLE milestone (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document_id BIGINT NOT NULL REFERENCES document (id) ON DELETE CASCADE,
  name VARCHAR(60) NOT NULL,
  reached_on DATE,
  UNIQUE (document_id, name)
);

ALTER TABLE debt ADD COLUMN milestone_id BIGINT;
ALTER TABLE debt ADD CONSTRAINT debt_awaits FOREIGN KEY (milestone_id) REFERENCES milestone (id);
ALTER TABLE debt ADD COLUMN milestone_days INT;

-- An installment of which nothing was paid may be replaced when a schedule is rearranged: it says what was agreed before, and
-- nothing of it is owed.
ALTER TABLE debt ADD COLUMN replaced_on DATE;
DROP INDEX debt_of_document;
DROP INDEX debt_owed;
ALTER TABLE debt DROP COLUMN owed_by;
ALTER TABLE debt DROP COLUMN open_minor;
ALTER TABLE debt ADD COLUMN open_minor BIGINT GENERATED ALWAYS AS
  (CASE WHEN replaced_on IS NULL THEN ((amount_minor - settled_minor) - credited_minor) - written_off_minor ELSE 0 END);
ALTER TABLE debt ADD COLUMN owed_by BIGINT GENERATED ALWAYS AS
  (CASE WHEN replaced_on IS NULL AND amount_minor > ((settled_minor + credited_minor) + written_off_minor)
    THEN client_id END);
CREATE INDEX debt_of_document ON debt (document_id, open_minor, due_on, currency);
CREATE INDEX debt_owed ON debt (owed_by, currency, due_on, open_minor);
CREATE INDEX debt_of_milestone ON debt (milestone_id, id);
