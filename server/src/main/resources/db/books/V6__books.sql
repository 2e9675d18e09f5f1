-- Money, what is owed, and every entry.

-- Money that moved. Of a receipt the tip and the surcharge are parts; what is held for work to come settles nothing by itself:
-- an invoice deducts it as prepaid. The client's name stands beside it and follows it, and the number of the invoice that it
-- was for: lists read nothing else.
CREATE TABLE movement (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(14) NOT NULL,
  request_key VARCHAR(80) NOT NULL UNIQUE,
  client_id BIGINT REFERENCES client (id),
  client_name VARCHAR(120) NOT NULL,
  invoice_id BIGINT REFERENCES document (id),
  number VARCHAR(60),
  way VARCHAR(10),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  tip_minor BIGINT DEFAULT 0 NOT NULL CHECK (tip_minor >= 0),
  surcharge_minor BIGINT DEFAULT 0 NOT NULL CHECK (surcharge_minor >= 0),
  cost_minor BIGINT DEFAULT 0 NOT NULL,
  payout_id BIGINT REFERENCES movement (id),
  of_id BIGINT REFERENCES movement (id),
  value_on DATE NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  reference VARCHAR(200) DEFAULT '' NOT NULL,
  card VARCHAR(60) DEFAULT '' NOT NULL,
  processor_payment VARCHAR(80) UNIQUE,
  undone_on DATE,
  undone_why VARCHAR(300),
  unexpected BOOLEAN DEFAULT FALSE NOT NULL,
  held BOOLEAN DEFAULT FALSE NOT NULL,
  CHECK (tip_minor + surcharge_minor <= amount_minor)
);
CREATE INDEX movement_of_client ON movement (client_id, id);
CREATE INDEX movement_unexpected ON movement (unexpected, id);
CREATE INDEX movement_listed ON movement (value_on DESC, id DESC);

-- A request's key with the hash of what it asked for, written before anything else: who comes second answers from it.
CREATE TABLE request_key (
  request_key VARCHAR(80) PRIMARY KEY,
  body_hash CHAR(64) NOT NULL,
  movement_id BIGINT REFERENCES movement (id)
);

-- Amounts are whole minor units of the currency beside them. Nothing in journal_entry, posting, settlement or credit_draw is
-- ever changed: what was wrong is reversed by a new entry.
CREATE TABLE journal_entry (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  event VARCHAR(30) NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  text VARCHAR(1000) NOT NULL,
  client_id BIGINT,
  invoice_id BIGINT,
  movement_id BIGINT,
  reverses_id BIGINT UNIQUE REFERENCES journal_entry (id),
  who VARCHAR(120) NOT NULL
);
CREATE INDEX entry_of_client ON journal_entry (client_id, id);
CREATE INDEX entry_of_movement ON journal_entry (movement_id, id);

-- The two sides of an entry. A category is the business's own name for a kind of income.
-- Sums over all postings are read from the indexes alone.
CREATE TABLE posting (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  account VARCHAR(30) NOT NULL,
  detail VARCHAR(40) NOT NULL,
  client_id BIGINT,
  invoice_id BIGINT,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  own_minor BIGINT NOT NULL,
  category VARCHAR(60) DEFAULT '' NOT NULL
);
CREATE INDEX posting_of_entry ON posting (entry_id, id);
CREATE INDEX posting_of_client ON posting (client_id, account, currency);
CREATE INDEX posting_of_currency ON posting (account, currency, client_id, amount_minor);
CREATE INDEX posting_sums ON posting (account, detail, currency, amount_minor, own_minor);

-- An installment, a deposit asked for, a late fee or interest, with its document's number: all are owed, settled and credited
-- alike. A fee's place is above 1000. The three sums are those of its settlements. Who owes it stands on it as long as
-- anything of it is open: all sums of what is open are read from one index. Without a due date it is not late.
CREATE TABLE debt (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT NOT NULL,
  document_id BIGINT REFERENCES document (id),
  number VARCHAR(60) NOT NULL,
  kind VARCHAR(12) NOT NULL,
  on_debt_id BIGINT REFERENCES debt (id),
  place INT NOT NULL,
  currency CHAR(3) NOT NULL,
  first_minor BIGINT NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  settled_minor BIGINT DEFAULT 0 NOT NULL CHECK (settled_minor >= 0),
  credited_minor BIGINT DEFAULT 0 NOT NULL CHECK (credited_minor >= 0),
  written_off_minor BIGINT DEFAULT 0 NOT NULL CHECK (written_off_minor >= 0),
  open_minor BIGINT GENERATED ALWAYS AS (((amount_minor - settled_minor) - credited_minor) - written_off_minor),
  due_on DATE,
  order_on DATE NOT NULL,
  settled_on DATE,
  note VARCHAR(1000) DEFAULT '' NOT NULL,
  owed_by BIGINT GENERATED ALWAYS AS
    (CASE WHEN amount_minor > ((settled_minor + credited_minor) + written_off_minor) THEN client_id END),
  UNIQUE (document_id, place),
  CHECK ((settled_minor + credited_minor) + written_off_minor <= amount_minor)
);
CREATE INDEX debt_of_document ON debt (document_id, open_minor, due_on, currency);
CREATE INDEX debt_owed ON debt (owed_by, currency, due_on, open_minor);

-- What was agreed of a debt from when on, and how its amount was reached; the latest holds.
CREATE TABLE debt_term (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  debt_id BIGINT NOT NULL REFERENCES debt (id) ON DELETE CASCADE,
  from_on DATE NOT NULL,
  due_on DATE,
  amount_minor BIGINT NOT NULL,
  why VARCHAR(1000000) NOT NULL
);
CREATE INDEX debt_term_of_debt ON debt_term (debt_id, id);

-- Client credit and deposits, lot by lot: what each came from, what it was split from, and which draft it waits for.
CREATE TABLE credit (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT NOT NULL REFERENCES client (id),
  currency CHAR(3) NOT NULL,
  kind VARCHAR(8) NOT NULL,
  movement_id BIGINT REFERENCES movement (id),
  document_id BIGINT REFERENCES document (id),
  from_id BIGINT REFERENCES credit (id),
  reserved_for BIGINT REFERENCES document (id),
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  left_minor BIGINT NOT NULL CHECK (left_minor >= 0),
  has_left BOOLEAN GENERATED ALWAYS AS (left_minor > 0),
  CHECK (left_minor <= amount_minor),
  CHECK ((movement_id IS NULL) <> (document_id IS NULL))
);
CREATE INDEX credit_left ON credit (client_id, has_left, currency);
CREATE INDEX credit_of_movement ON credit (movement_id);
CREATE INDEX credit_reserved ON credit (reserved_for);

-- What came out of credit otherwise than to a debt: an invoice that deducts a deposit, money that goes back. Below zero it was
-- put back.
CREATE TABLE credit_draw (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  credit_id BIGINT NOT NULL REFERENCES credit (id),
  movement_id BIGINT REFERENCES movement (id),
  document_id BIGINT,
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  CHECK ((movement_id IS NULL) <> (document_id IS NULL))
);
CREATE INDEX credit_draw_of_credit ON credit_draw (credit_id);
CREATE INDEX credit_draw_of_document ON credit_draw (document_id);

-- Each change of what is open of a debt: above zero lowers it. What no longer holds is taken back by a row that names it. The
-- amount is the debt's currency's; where money of another settled it, that stands beside it.
CREATE TABLE settlement (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  debt_id BIGINT NOT NULL REFERENCES debt (id),
  kind VARCHAR(12) NOT NULL,
  movement_id BIGINT REFERENCES movement (id),
  credit_id BIGINT REFERENCES credit (id),
  document_id BIGINT REFERENCES document (id),
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  source_currency CHAR(3),
  source_minor BIGINT,
  value_on DATE NOT NULL,
  booked_on DATE NOT NULL,
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  reverses_id BIGINT REFERENCES settlement (id),
  CHECK ((movement_id IS NULL) <> (document_id IS NULL))
);
CREATE INDEX settlement_of_debt ON settlement (debt_id, id);
CREATE INDEX settlement_of_movement ON settlement (movement_id, id);
CREATE INDEX settlement_of_credit ON settlement (credit_id, id);
CREATE INDEX settlement_reversed ON settlement (reverses_id);
