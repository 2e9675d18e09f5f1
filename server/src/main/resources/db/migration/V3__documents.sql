-- Where parties are, by ISO 3166-1; what open formats and some tax categories ask for.
ALTER TABLE business ADD COLUMN country VARCHAR(2) DEFAULT '' NOT NULL;
ALTER TABLE client ADD COLUMN country VARCHAR(2) DEFAULT '' NOT NULL;
ALTER TABLE client ADD COLUMN certificate VARCHAR(80) DEFAULT '' NOT NULL;
ALTER TABLE client ADD COLUMN exempt_until DATE;

-- A tax that is no longer offered stays: drafts and issued documents name it.
ALTER TABLE tax ADD COLUMN retired BOOLEAN DEFAULT FALSE NOT NULL;

-- How documents look and what they say; labels and coins are kept as JSON.
CREATE TABLE document_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  layout VARCHAR(20) NOT NULL,
  terms CLOB NOT NULL,
  labels CLOB NOT NULL,
  coins CLOB NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
CREATE TABLE exchange_rate (
  currency CHAR(3) NOT NULL,
  from_on DATE NOT NULL,
  rate DECIMAL(24, 10) NOT NULL CHECK (rate > 0),
  PRIMARY KEY (currency, from_on)
);

-- An invoice that was never sent can be voided, its number stays; or go back to a draft that keeps the number.
ALTER TABLE invoice ADD COLUMN voided_on DATE;
CREATE TABLE earlier_text (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  number VARCHAR(60) NOT NULL,
  issued_on DATE NOT NULL,
  fixed CLOB NOT NULL,
  taken_back_on DATE NOT NULL,
  why VARCHAR(300) NOT NULL,
  who VARCHAR(120) NOT NULL
);
CREATE INDEX earlier_text_of_invoice ON earlier_text (invoice_id, id);

-- An invoice can have several credit notes, each for a part. What all of them took together stands on the latest.
CREATE TABLE note (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  number VARCHAR(60) NOT NULL UNIQUE,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  issued_on DATE NOT NULL,
  reason VARCHAR(300) NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT NOT NULL,
  whole BOOLEAN NOT NULL,
  fixed CLOB,
  taken CLOB
);
INSERT INTO note (number, invoice_id, issued_on, reason, currency, total_minor, whole)
  SELECT number, invoice_id, issued_on, reason, currency, total_minor, TRUE FROM credit_note ORDER BY id;
DROP TABLE credit_note;
ALTER TABLE note RENAME TO credit_note;
CREATE INDEX credit_note_of_invoice ON credit_note (invoice_id, id);
ALTER TABLE message ADD COLUMN credit_note_id BIGINT REFERENCES credit_note (id);
UPDATE message m SET credit_note_id = (SELECT c.id FROM credit_note c WHERE c.invoice_id = m.invoice_id)
 WHERE m.attachment = 'credit note';

-- Files kept with a document. They are copied, never shared: what was sent with an invoice stays with it.
CREATE TABLE attachment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  name VARCHAR(120) NOT NULL,
  type VARCHAR(100) NOT NULL,
  size INT NOT NULL CHECK (size > 0),
  sent BOOLEAN NOT NULL,
  content BLOB NOT NULL
);
CREATE INDEX attachment_of_invoice ON attachment (invoice_id, id);

-- Money held for work to come settles nothing by itself: an invoice deducts it as prepaid.
ALTER TABLE payment ADD COLUMN held BOOLEAN DEFAULT FALSE NOT NULL;
