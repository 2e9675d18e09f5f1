-- What a note of the history is about, so that it is shown with its letter, payment or late fee and told once.
ALTER TABLE happening ADD COLUMN about_kind VARCHAR(10);
ALTER TABLE happening ADD COLUMN about_id BIGINT;
-- Lists of everything, in their usual order, begin without reading everything.
-- Drafts stand first: they have no day yet.
ALTER TABLE invoice ADD COLUMN listed_on DATE GENERATED ALWAYS AS (COALESCE(issued_on, DATE '9999-12-31'));
CREATE INDEX invoice_listed ON invoice (listed_on DESC, id DESC);
CREATE INDEX payment_listed ON payment (value_on DESC, id DESC);
-- Views of a list, kept under a name: what the address of the list holds.
CREATE TABLE kept_view (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(80) NOT NULL,
  shows VARCHAR(1000) NOT NULL,
  UNIQUE (place, name)
);
-- The kept schedule that a client's invoices begin with.
ALTER TABLE client ADD COLUMN schedule_id BIGINT REFERENCES kept_schedule (id) ON DELETE SET NULL;
-- Accounts for transfers in other currencies than the usual account's.
CREATE TABLE bank_account (
  currency CHAR(3) PRIMARY KEY,
  iban VARCHAR(40) NOT NULL,
  bic VARCHAR(20) NOT NULL
);
-- Discounts on the whole and charges that are kept for reuse, as they are typed.
CREATE TABLE kept_extra (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  charge BOOLEAN NOT NULL,
  description VARCHAR(300) NOT NULL,
  amount VARCHAR(40) NOT NULL,
  taxes VARCHAR(1000) NOT NULL
);
-- The colour of headings on paper, as #rrggbb; empty for the usual ink.
ALTER TABLE document_setting ADD COLUMN accent VARCHAR(7) DEFAULT '' NOT NULL;
-- The newest of a kind first, so that finding common words looks through few.
CREATE INDEX find_entry_newest ON find_entry (kind, id DESC);
CREATE INDEX find_hit_of_entry_and_word ON find_hit (entry_id, word_id);
