-- Written and read every ten seconds, so that health can say whether the books take anything.
CREATE TABLE probe (
  id INT PRIMARY KEY,
  beat BIGINT NOT NULL
);
-- Who signed in, who tried to, what of importance was changed; by the system's clock.
CREATE SEQUENCE access_log_id;
CREATE TABLE access_log (
  id BIGINT PRIMARY KEY,
  at TIMESTAMP WITH TIME ZONE NOT NULL,
  what VARCHAR(100) NOT NULL,
  who VARCHAR(200) NOT NULL,
  from_address VARCHAR(60) NOT NULL,
  browser VARCHAR(200) NOT NULL,
  times INT NOT NULL
);
CREATE INDEX access_log_failed ON access_log (from_address, what, at);
-- Whoever was asked longest ago is asked next, by the system's clock; and why money could not be booked.
ALTER TABLE card_order ADD COLUMN polled_at TIMESTAMP;
ALTER TABLE card_order ADD COLUMN trouble VARCHAR(300);
ALTER TABLE card_order ALTER COLUMN installments SET DATA TYPE VARCHAR(4000);
CREATE INDEX card_order_polled ON card_order (state, polled_at, id);
-- Credit of a credit note that waits for the draft which replaces its invoice: nothing else takes it.
CREATE TABLE waiting_credit (
  draft_id BIGINT PRIMARY KEY REFERENCES invoice (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0)
);
CREATE INDEX waiting_credit_of_client ON waiting_credit (client_id, currency);
-- A request's key with the hash of what it asked for, written before anything else: who comes second answers from it.
CREATE TABLE request_key (
  request_key VARCHAR(80) PRIMARY KEY,
  body_hash CHAR(64) NOT NULL,
  payment_id BIGINT REFERENCES payment (id)
);
-- What was mailed is kept for good, once for each content.
CREATE TABLE paper (
  hash CHAR(64) PRIMARY KEY,
  content BLOB NOT NULL
);
CREATE TABLE message_paper (
  message_id BIGINT PRIMARY KEY REFERENCES message (id),
  name VARCHAR(120) NOT NULL,
  hash CHAR(64) NOT NULL REFERENCES paper (hash)
);
-- Texts that are put together of others need more room than each of them.
ALTER TABLE journal_entry ALTER COLUMN text SET DATA TYPE VARCHAR(1000);
ALTER TABLE happening ALTER COLUMN what SET DATA TYPE VARCHAR(1000);
ALTER TABLE run_act ALTER COLUMN what SET DATA TYPE VARCHAR(1000);
ALTER TABLE run_act ALTER COLUMN reason SET DATA TYPE VARCHAR(1000);
ALTER TABLE kept_back_act ALTER COLUMN what SET DATA TYPE VARCHAR(1000);
ALTER TABLE debt ALTER COLUMN note SET DATA TYPE VARCHAR(1000);
ALTER TABLE late_fee ALTER COLUMN waived_why SET DATA TYPE VARCHAR(1000);
ALTER TABLE message ALTER COLUMN subject SET DATA TYPE VARCHAR(500);
ALTER TABLE earlier_text ALTER COLUMN why SET DATA TYPE VARCHAR(1000);
-- What was recorded after the day it is dated: only such a payment puts a late fee up for waiving.
ALTER TABLE payment ADD COLUMN backdated BOOLEAN GENERATED ALWAYS AS (value_on < booked_on);
CREATE INDEX payment_backdated ON payment (backdated, id);
CREATE INDEX payment_unexpected ON payment (unexpected, id);
CREATE INDEX run_act_of_outcome ON run_act (outcome, run_on, id);
-- Sums over all postings and debts are read from these alone.
CREATE INDEX posting_sums ON posting (account, detail, own_minor);
CREATE INDEX posting_of_currency ON posting (account, currency, client_id, amount_minor);
CREATE INDEX debt_of_invoice ON debt (invoice_id, open_minor, due_on, currency);
CREATE INDEX invoice_settled_of_client ON invoice (client_id, bucket, settled_on);
