-- A debt is an installment or a late fee: both are owed, settled and credited alike. A fee's place is above 1000.
ALTER TABLE installment RENAME TO debt;
ALTER TABLE debt ADD COLUMN fee BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE appropriation ALTER COLUMN installment_id RENAME TO debt_id;

ALTER TABLE business ADD COLUMN fees_first BOOLEAN DEFAULT FALSE NOT NULL;

-- Policies are kept as typed. The one of an invoice is fixed when it is issued and never changed after.
CREATE TABLE late_fee_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  policy CLOB NOT NULL,
  ceiling DECIMAL(7, 4) NOT NULL CHECK (ceiling BETWEEN 0 AND 100),
  review BOOLEAN NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
CREATE TABLE client_late_fee (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  policy CLOB NOT NULL
);
CREATE TABLE fixed_late_fee (
  invoice_id BIGINT PRIMARY KEY REFERENCES invoice (id),
  policy CLOB NOT NULL
);
-- A fee charged, waived, or not charged after review: its key is used up in each case.
CREATE TABLE late_fee (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  installment_id BIGINT NOT NULL REFERENCES debt (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  due_on DATE NOT NULL,
  sequence INT NOT NULL CHECK (sequence > 0),
  debt_id BIGINT UNIQUE REFERENCES debt (id),
  currency CHAR(3) NOT NULL,
  base_minor BIGINT NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor >= 0),
  why CLOB NOT NULL,
  charged_on DATE NOT NULL,
  entry_id BIGINT REFERENCES journal_entry (id),
  waived_on DATE,
  waived_why VARCHAR(300),
  stands BOOLEAN DEFAULT FALSE NOT NULL,
  UNIQUE (installment_id, due_on, sequence)
);
CREATE INDEX late_fee_of_client ON late_fee (client_id, id);
CREATE INDEX late_fee_of_invoice ON late_fee (invoice_id, id);

CREATE TABLE reminder_plan (
  id INT PRIMARY KEY CHECK (id = 1),
  plan CLOB NOT NULL,
  since_on DATE NOT NULL,
  all_kept_back BOOLEAN DEFAULT FALSE NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
-- One row for each client that owes: the earliest day on which anything may come up for it.
CREATE TABLE client_chasing (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  look_on DATE,
  muted_until DATE,
  kept_back BOOLEAN DEFAULT FALSE NOT NULL,
  reminded_on DATE,
  change_no BIGINT DEFAULT 0 NOT NULL
);
CREATE INDEX client_chasing_look ON client_chasing (look_on, client_id);
CREATE TABLE muted_invoice (
  invoice_id BIGINT PRIMARY KEY REFERENCES invoice (id),
  muted_until DATE NOT NULL
);
CREATE TABLE used_step (
  debt_id BIGINT PRIMARY KEY REFERENCES debt (id),
  used_through INT NOT NULL
);
CREATE TABLE kept_back_act (
  act_key VARCHAR(120) PRIMARY KEY,
  client_id BIGINT NOT NULL REFERENCES client (id),
  what VARCHAR(300) NOT NULL,
  who VARCHAR(120) NOT NULL,
  kept_on DATE NOT NULL
);
CREATE INDEX invoice_open_of_client ON invoice (client_id, bucket, id);
CREATE INDEX kept_back_of_client ON kept_back_act (client_id);
INSERT INTO client_chasing (client_id, look_on)
  SELECT DISTINCT client_id, DATE '2000-01-01' FROM invoice WHERE bucket = 'open';

-- The daily run: what each day announced, and what became of it.
CREATE TABLE run_day (
  run_on DATE PRIMARY KEY,
  planned_at TIMESTAMP NOT NULL,
  finished_at TIMESTAMP
);
CREATE TABLE run_act (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  run_on DATE NOT NULL,
  act_key VARCHAR(120) NOT NULL,
  kind VARCHAR(10) NOT NULL CHECK (kind IN ('fee', 'reminder')),
  client_id BIGINT NOT NULL REFERENCES client (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  currency CHAR(3) NOT NULL,
  announced_minor BIGINT,
  amount_minor BIGINT,
  what VARCHAR(400) NOT NULL,
  outcome VARCHAR(12) NOT NULL CHECK (outcome IN ('planned', 'done', 'kept back', 'not needed', 'failed')),
  reason VARCHAR(400) DEFAULT '' NOT NULL,
  UNIQUE (run_on, act_key)
);
CREATE INDEX run_act_of_client ON run_act (client_id, id);

-- A reminder is about several invoices; what it says is fixed when it is written, and its paper is made from that.
ALTER TABLE message ADD COLUMN reminder CLOB;
ALTER TABLE message ADD COLUMN by_hand BOOLEAN DEFAULT FALSE NOT NULL;
CREATE TABLE message_about (
  message_id BIGINT NOT NULL REFERENCES message (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  PRIMARY KEY (message_id, invoice_id)
);
CREATE INDEX message_about_invoice ON message_about (invoice_id, message_id);
CREATE INDEX message_of_client ON message (client_id, id);
CREATE TABLE page_opening (
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  opened_on DATE NOT NULL,
  PRIMARY KEY (invoice_id, opened_on)
);

-- When an order was opened, and when the processor last told how it stands, by the business's clock.
ALTER TABLE card_order ADD COLUMN opened_at TIMESTAMP;
ALTER TABLE card_order ADD COLUMN asked_at TIMESTAMP;
CREATE INDEX card_order_of_client ON card_order (client_id, state);
