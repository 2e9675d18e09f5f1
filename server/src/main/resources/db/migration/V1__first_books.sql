-- Amounts are whole minor units of the currency beside them. Nothing in journal_entry, posting or appropriation is
-- ever changed: what was wrong is reversed by a new entry.
CREATE TABLE business (
  id INT PRIMARY KEY CHECK (id = 1),
  name VARCHAR(120) NOT NULL,
  tagline VARCHAR(200) DEFAULT '' NOT NULL,
  address VARCHAR(500) DEFAULT '' NOT NULL,
  email VARCHAR(200) NOT NULL,
  tax_number VARCHAR(40) DEFAULT '' NOT NULL,
  registered BOOLEAN NOT NULL,
  currency CHAR(3) NOT NULL,
  zone VARCHAR(60) NOT NULL,
  tax_rounding VARCHAR(10) NOT NULL CHECK (tax_rounding IN ('PER_TAX', 'PER_LINE')),
  iban VARCHAR(40) DEFAULT '' NOT NULL,
  bic VARCHAR(20) DEFAULT '' NOT NULL,
  invoice_pattern VARCHAR(40) NOT NULL,
  credit_note_pattern VARCHAR(40) NOT NULL,
  days_to_pay INT NOT NULL CHECK (days_to_pay BETWEEN 0 AND 3650),
  footer VARCHAR(500) DEFAULT '' NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
CREATE TABLE tax (
  id VARCHAR(40) PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  rate DECIMAL(7, 4) NOT NULL CHECK (rate BETWEEN 0 AND 100),
  category VARCHAR(2) NOT NULL,
  compound BOOLEAN NOT NULL,
  reason VARCHAR(200) DEFAULT '' NOT NULL,
  place INT NOT NULL
);
CREATE TABLE person (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  email VARCHAR(200) NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  passphrase VARCHAR(300) NOT NULL
);
CREATE TABLE client (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  contact VARCHAR(120) DEFAULT '' NOT NULL,
  email VARCHAR(200) DEFAULT '' NOT NULL,
  address VARCHAR(500) DEFAULT '' NOT NULL,
  tax_number VARCHAR(40) DEFAULT '' NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
CREATE INDEX client_by_name ON client (name, id);
CREATE TABLE number_series (
  kind VARCHAR(20) NOT NULL,
  series INT NOT NULL,
  last INT NOT NULL,
  PRIMARY KEY (kind, series)
);
CREATE TABLE invoice (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT REFERENCES client (id),
  client_name VARCHAR(120) DEFAULT '' NOT NULL,
  bucket VARCHAR(8) NOT NULL CHECK (bucket IN ('draft', 'open', 'settled')),
  number VARCHAR(60) UNIQUE,
  subject VARCHAR(200) DEFAULT '' NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT,
  open_minor BIGINT DEFAULT 0 NOT NULL CHECK (open_minor >= 0),
  next_due_on DATE,
  issued_on DATE,
  settled_on DATE,
  typed CLOB NOT NULL,
  fixed CLOB,
  token VARCHAR(64) NOT NULL UNIQUE,
  replaces_id BIGINT REFERENCES invoice (id),
  version INT DEFAULT 1 NOT NULL,
  made_at TIMESTAMP NOT NULL,
  CHECK (bucket = 'draft' OR (number IS NOT NULL AND fixed IS NOT NULL AND client_id IS NOT NULL))
);
CREATE INDEX invoice_open ON invoice (bucket, next_due_on, id);
CREATE INDEX invoice_settled ON invoice (bucket, settled_on DESC, id DESC);
CREATE INDEX invoice_of_client ON invoice (client_id, id);
CREATE TABLE installment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  place INT NOT NULL,
  deposit BOOLEAN NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  settled_minor BIGINT DEFAULT 0 NOT NULL CHECK (settled_minor >= 0),
  credited_minor BIGINT DEFAULT 0 NOT NULL CHECK (credited_minor >= 0),
  open_minor BIGINT GENERATED ALWAYS AS (amount_minor - settled_minor - credited_minor),
  due_on DATE NOT NULL,
  why CLOB NOT NULL,
  settled_on DATE,
  UNIQUE (invoice_id, place),
  CHECK (settled_minor + credited_minor <= amount_minor)
);
CREATE TABLE credit_note (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  number VARCHAR(60) NOT NULL UNIQUE,
  invoice_id BIGINT NOT NULL UNIQUE REFERENCES invoice (id),
  issued_on DATE NOT NULL,
  reason VARCHAR(300) NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT NOT NULL
);
CREATE TABLE payment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  request_key VARCHAR(80) NOT NULL UNIQUE,
  client_id BIGINT NOT NULL REFERENCES client (id),
  invoice_id BIGINT REFERENCES invoice (id),
  way VARCHAR(10) NOT NULL CHECK (way IN ('CARD', 'TRANSFER', 'CASH', 'CHEQUE')),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  fee_minor BIGINT DEFAULT 0 NOT NULL,
  value_on DATE NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP NOT NULL,
  reference VARCHAR(200) DEFAULT '' NOT NULL,
  card VARCHAR(60) DEFAULT '' NOT NULL,
  processor_payment VARCHAR(80) UNIQUE,
  undone_on DATE,
  undone_why VARCHAR(300),
  unexpected BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE INDEX payment_of_client ON payment (client_id, id);
CREATE TABLE journal_entry (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  event VARCHAR(30) NOT NULL,
  booked_on DATE NOT NULL,
  booked_at TIMESTAMP NOT NULL,
  text VARCHAR(300) NOT NULL,
  client_id BIGINT,
  invoice_id BIGINT,
  payment_id BIGINT,
  reverses_id BIGINT UNIQUE REFERENCES journal_entry (id),
  who VARCHAR(120) NOT NULL
);
CREATE INDEX entry_of_client ON journal_entry (client_id, id);
CREATE INDEX entry_of_payment ON journal_entry (payment_id, id);
CREATE TABLE posting (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  account VARCHAR(30) NOT NULL,
  detail VARCHAR(40) NOT NULL,
  client_id BIGINT,
  invoice_id BIGINT,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  own_minor BIGINT NOT NULL
);
CREATE INDEX posting_of_entry ON posting (entry_id, id);
CREATE INDEX posting_of_client ON posting (client_id, account, currency);
CREATE TABLE appropriation (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  payment_id BIGINT REFERENCES payment (id),
  installment_id BIGINT NOT NULL REFERENCES installment (id),
  amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0),
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id)
);
CREATE INDEX appropriation_of_installment ON appropriation (installment_id, id);
CREATE INDEX appropriation_of_payment ON appropriation (payment_id, id);
CREATE TABLE card_order (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  order_key VARCHAR(80) NOT NULL UNIQUE,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  installments VARCHAR(600) NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  state VARCHAR(12) NOT NULL CHECK (state IN ('wanted', 'open', 'withdrawing', 'withdrawn', 'paid')),
  processor_id VARCHAR(80) UNIQUE,
  pay_at VARCHAR(500),
  declined VARCHAR(200),
  made_at TIMESTAMP NOT NULL
);
CREATE INDEX card_order_live ON card_order (state, id);
CREATE INDEX card_order_of_invoice ON card_order (invoice_id, state);
CREATE TABLE hook_seen (
  id VARCHAR(80) PRIMARY KEY,
  seen_at TIMESTAMP NOT NULL
);
CREATE TABLE message (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  what_key VARCHAR(120) NOT NULL UNIQUE,
  message_id VARCHAR(200) NOT NULL UNIQUE,
  kind VARCHAR(20) NOT NULL,
  client_id BIGINT NOT NULL REFERENCES client (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  to_address VARCHAR(200) NOT NULL,
  subject VARCHAR(300) NOT NULL,
  html CLOB NOT NULL,
  text CLOB NOT NULL,
  attachment VARCHAR(20) NOT NULL CHECK (attachment IN ('none', 'invoice', 'credit note')),
  state VARCHAR(12) NOT NULL CHECK (state IN ('waiting', 'sending', 'sent', 'uncertain', 'failed', 'set aside')),
  tries INT DEFAULT 0 NOT NULL,
  next_try_at TIMESTAMP NOT NULL,
  error VARCHAR(400),
  made_on DATE NOT NULL,
  made_at TIMESTAMP NOT NULL,
  sent_on DATE
);
CREATE INDEX message_waiting ON message (state, next_try_at, id);
CREATE INDEX message_of_invoice ON message (invoice_id, id);
CREATE TABLE happening (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT,
  client_id BIGINT,
  happened_on DATE NOT NULL,
  happened_at TIMESTAMP NOT NULL,
  who VARCHAR(120) NOT NULL,
  what VARCHAR(400) NOT NULL
);
CREATE INDEX happening_of_invoice ON happening (invoice_id, id);
CREATE INDEX happening_of_client ON happening (client_id, id);
CREATE TABLE moved_clock (
  id INT PRIMARY KEY CHECK (id = 1),
  ahead_seconds BIGINT NOT NULL
);
