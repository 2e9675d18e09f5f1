-- What comes by itself.

-- Policies are kept as typed. The one of an invoice is fixed when it is issued and never changed after.
CREATE TABLE late_fee_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  policy VARCHAR(1000000) NOT NULL,
  ceiling DECIMAL(7, 4) NOT NULL CHECK (ceiling BETWEEN 0 AND 100),
  review BOOLEAN NOT NULL,
  version INT DEFAULT 1 NOT NULL
);

CREATE TABLE client_late_fee (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  policy VARCHAR(1000000) NOT NULL
);

-- As it was printed, with the invoice's sets of taxes where its fees bear tax.
CREATE TABLE fixed_late_fee (
  invoice_id BIGINT PRIMARY KEY REFERENCES document (id),
  policy VARCHAR(1000000) NOT NULL
);

-- A fee charged, waived, or not charged after review: its key is used up in each case. The fee itself is without tax that was
-- added; the cap counts it.
CREATE TABLE late_fee (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  installment_id BIGINT NOT NULL REFERENCES debt (id),
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  due_on DATE NOT NULL,
  sequence INT NOT NULL CHECK (sequence > 0),
  debt_id BIGINT UNIQUE REFERENCES debt (id),
  currency CHAR(3) NOT NULL,
  base_minor BIGINT NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor >= 0),
  why VARCHAR(1000000) NOT NULL,
  charged_on DATE NOT NULL,
  entry_id BIGINT REFERENCES journal_entry (id),
  waived_on DATE,
  waived_why VARCHAR(1000),
  stands BOOLEAN DEFAULT FALSE NOT NULL,
  fee_minor BIGINT NOT NULL,
  UNIQUE (installment_id, due_on, sequence),
  CHECK (fee_minor BETWEEN 0 AND amount_minor)
);
CREATE INDEX late_fee_of_client ON late_fee (client_id, id);
CREATE INDEX late_fee_of_invoice ON late_fee (invoice_id, id);

-- Money that was booked after the day it is dated, and what it settled: only that puts a late fee up for waiving.
CREATE TABLE paid_earlier (
  movement_id BIGINT NOT NULL REFERENCES movement (id),
  debt_id BIGINT NOT NULL REFERENCES debt (id),
  paid_on DATE NOT NULL,
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  PRIMARY KEY (movement_id, debt_id)
);
CREATE INDEX paid_earlier_of_debt ON paid_earlier (debt_id, paid_on);

-- The steps by which the business reminds, and the last day on which everything is kept back (a day that never comes where
-- only a person ends it): one row.
CREATE TABLE reminder_plan (
  id INT PRIMARY KEY CHECK (id = 1),
  plan VARCHAR(1000000) NOT NULL,
  since_on DATE NOT NULL,
  all_kept_until DATE,
  version INT DEFAULT 1 NOT NULL
);

-- Steps of other plans, under names; their hour and the days on which nothing goes are the business's.
CREATE TABLE named_plan (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(80) NOT NULL UNIQUE,
  steps VARCHAR(1000000) NOT NULL,
  since_on DATE NOT NULL,
  version INT DEFAULT 1 NOT NULL
);

-- By which plan a client, or one document, is reminded; without a plan in it by none. Steps before that day lapse.
CREATE TABLE client_plan (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  plan_id BIGINT REFERENCES named_plan (id),
  since_on DATE NOT NULL
);
CREATE INDEX client_plan_of_plan ON client_plan (plan_id);

CREATE TABLE document_plan (
  document_id BIGINT PRIMARY KEY REFERENCES document (id) ON DELETE CASCADE,
  plan_id BIGINT REFERENCES named_plan (id),
  since_on DATE NOT NULL
);
CREATE INDEX document_plan_of_plan ON document_plan (plan_id);

-- One row for each client that owes: the earliest day on which anything may come up for it.
CREATE TABLE client_chasing (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  look_on DATE,
  muted_until DATE,
  kept_back_until DATE,
  reminded_on DATE,
  change_no BIGINT DEFAULT 0 NOT NULL
);
CREATE INDEX client_chasing_look ON client_chasing (look_on, client_id);

CREATE TABLE muted_invoice (
  invoice_id BIGINT PRIMARY KEY REFERENCES document (id),
  muted_until DATE NOT NULL
);

CREATE TABLE used_step (
  debt_id BIGINT PRIMARY KEY REFERENCES debt (id),
  used_through INT NOT NULL
);

-- What was kept back, and by whom. A reminder that was kept back on its day has the day, and the steps that it used up, as
-- debt:days with blanks between.
CREATE TABLE kept_back_act (
  act_key VARCHAR(120) PRIMARY KEY,
  client_id BIGINT NOT NULL REFERENCES client (id),
  what VARCHAR(1000) NOT NULL,
  who VARCHAR(120) NOT NULL,
  kept_on DATE NOT NULL,
  passed_on DATE,
  steps VARCHAR(4000)
);
CREATE INDEX kept_back_of_client ON kept_back_act (client_id);

-- The daily run: what each day announced, and what became of it. Sums are written EUR 10.00;GBP 5.00, empty for none.
CREATE TABLE run_day (
  run_on DATE PRIMARY KEY,
  planned_at TIMESTAMP WITH TIME ZONE NOT NULL,
  finished_at TIMESTAMP WITH TIME ZONE
);

CREATE TABLE run_act (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  run_on DATE NOT NULL,
  act_key VARCHAR(120) NOT NULL,
  kind VARCHAR(10) NOT NULL,
  client_id BIGINT NOT NULL REFERENCES client (id),
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  announced VARCHAR(300) NOT NULL,
  done VARCHAR(300) DEFAULT '' NOT NULL,
  what VARCHAR(1000) NOT NULL,
  outcome VARCHAR(12) NOT NULL,
  reason VARCHAR(1000) DEFAULT '' NOT NULL,
  UNIQUE (run_on, act_key)
);
CREATE INDEX run_act_of_outcome ON run_act (outcome, run_on, id);
CREATE INDEX run_act_of_client ON run_act (client_id, id);
