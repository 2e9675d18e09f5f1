-- Money, what is owed, and every entry.

-- Money that arrived. Held for work to come it settles nothing by itself: an invoice deducts it as prepaid. The client's
-- name stands beside it and follows it, and the number of the invoice that it was for: lists read nothing else.
CREATE TABLE payment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  request_key VARCHAR(80) NOT NULL UNIQUE,
  client_id BIGINT NOT NULL REFERENCES client (id),
  client_name VARCHAR(120) NOT NULL,
  invoice_id BIGINT REFERENCES document (id),
  number VARCHAR(60),
  way VARCHAR(10) NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  fee_minor BIGINT DEFAULT 0 NOT NULL,
  value_on DATE NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  reference VARCHAR(200) DEFAULT '' NOT NULL,
  card VARCHAR(60) DEFAULT '' NOT NULL,
  processor_payment VARCHAR(80) UNIQUE,
  undone_on DATE,
  undone_why VARCHAR(300),
  unexpected BOOLEAN DEFAULT FALSE NOT NULL,
  held BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE INDEX payment_of_client ON payment (client_id, id);
CREATE INDEX payment_unexpected ON payment (unexpected, id);
CREATE INDEX payment_listed ON payment (value_on DESC, id DESC);

-- A request's key with the hash of what it asked for, written before anything else: who comes second answers from it.
CREATE TABLE request_key (
  request_key VARCHAR(80) PRIMARY KEY,
  body_hash CHAR(64) NOT NULL,
  payment_id BIGINT REFERENCES payment (id)
);

-- Amounts are whole minor units of the currency beside them. Nothing in journal_entry, posting or appropriation is ever
-- changed: what was wrong is reversed by a new entry.
CREATE TABLE journal_entry (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  event VARCHAR(30) NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  text VARCHAR(1000) NOT NULL,
  client_id BIGINT,
  invoice_id BIGINT,
  payment_id BIGINT,
  reverses_id BIGINT UNIQUE REFERENCES journal_entry (id),
  who VARCHAR(120) NOT NULL
);
CREATE INDEX entry_of_client ON journal_entry (client_id, id);
CREATE INDEX entry_of_payment ON journal_entry (payment_id, id);

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

-- An installment or a late fee, with its invoice's number: both are owed, settled and credited alike. A fee's place is above
-- 1000. Who owes it stands on it as long as anything of it is open: all sums of what is open are read from one index.
CREATE TABLE debt (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  number VARCHAR(60) NOT NULL,
  place INT NOT NULL,
  deposit BOOLEAN NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  settled_minor BIGINT DEFAULT 0 NOT NULL CHECK (settled_minor >= 0),
  credited_minor BIGINT DEFAULT 0 NOT NULL CHECK (credited_minor >= 0),
  open_minor BIGINT GENERATED ALWAYS AS ((amount_minor - settled_minor) - credited_minor),
  due_on DATE NOT NULL,
  why VARCHAR(1000000) NOT NULL,
  settled_on DATE,
  fee BOOLEAN DEFAULT FALSE NOT NULL,
  note VARCHAR(1000) DEFAULT '' NOT NULL,
  client_id BIGINT NOT NULL,
  owed_by BIGINT GENERATED ALWAYS AS (CASE WHEN amount_minor > (settled_minor + credited_minor) THEN client_id END),
  UNIQUE (invoice_id, place),
  CHECK (settled_minor + credited_minor <= amount_minor)
);
CREATE INDEX debt_of_invoice ON debt (invoice_id, open_minor, due_on, currency);
CREATE INDEX debt_owed ON debt (owed_by, currency, due_on, open_minor);

-- Which payment settled which debt, and by which entry.
CREATE TABLE appropriation (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  payment_id BIGINT REFERENCES payment (id),
  debt_id BIGINT NOT NULL REFERENCES debt (id),
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id)
);
CREATE INDEX appropriation_of_installment ON appropriation (debt_id, id);
CREATE INDEX appropriation_of_payment ON appropriation (payment_id, id);

-- Credit of a credit note that waits for the draft which replaces its invoice: nothing else takes it.
CREATE TABLE waiting_credit (
  draft_id BIGINT PRIMARY KEY REFERENCES document (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0)
);
CREATE INDEX waiting_credit_of_client ON waiting_credit (client_id, currency);

-- An order at the card processor. By the business's clock: when it was opened, and when the processor last told how it stands;
-- by the system's: when it was made and asked about last. Whoever was asked longest ago is asked next.
CREATE TABLE card_order (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  order_key VARCHAR(80) NOT NULL UNIQUE,
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  installments VARCHAR(4000) NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  state VARCHAR(12) NOT NULL,
  processor_id VARCHAR(80) UNIQUE,
  pay_at VARCHAR(500),
  declined VARCHAR(200),
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  opened_at TIMESTAMP WITH TIME ZONE,
  asked_at TIMESTAMP WITH TIME ZONE,
  polled_at TIMESTAMP WITH TIME ZONE,
  trouble VARCHAR(300)
);
CREATE INDEX card_order_live ON card_order (state, id);
CREATE INDEX card_order_of_invoice ON card_order (invoice_id, state);
CREATE INDEX card_order_of_client ON card_order (client_id, state);
CREATE INDEX card_order_polled ON card_order (state, polled_at, id);

-- Events of the processor that were taken in.
CREATE TABLE hook_seen (
  id VARCHAR(80) PRIMARY KEY,
  seen_at TIMESTAMP WITH TIME ZONE NOT NULL
);
