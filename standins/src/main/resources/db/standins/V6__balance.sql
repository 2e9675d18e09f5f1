-- In which ways an order may be paid, whether its money is only held, and what a bank debit waits for.
ALTER TABLE card_order ADD COLUMN takes VARCHAR(40) DEFAULT 'card' NOT NULL;
ALTER TABLE card_order ADD COLUMN holds BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE card_order ADD COLUMN way VARCHAR(8);
ALTER TABLE card_order ADD COLUMN certain_on DATE;
ALTER TABLE card_order ADD COLUMN lapses_on DATE;
ALTER TABLE card_order ADD COLUMN bank_account VARCHAR(30);
ALTER TABLE card_order ADD COLUMN returns_on DATE;
ALTER TABLE card_order ADD COLUMN reason VARCHAR(100);
ALTER TABLE card_order ADD COLUMN taken DECIMAL(18, 4);
UPDATE card_order SET way = 'card', taken = amount WHERE state = 'paid';
ALTER TABLE attempt ALTER COLUMN outcome VARCHAR(60);
CREATE INDEX card_order_certain ON card_order (state, certain_on);

-- The last number of the account that is kept for the business: whoever books takes it first, so that numbers have no gap
-- and are seen in their order.
CREATE TABLE account_head (
  id INT PRIMARY KEY,
  last_number BIGINT NOT NULL
);
INSERT INTO account_head VALUES (1, 0);

CREATE TABLE payout (
  id VARCHAR(60) PRIMARY KEY,
  currency CHAR(3) NOT NULL,
  amount DECIMAL(18, 4) NOT NULL,
  made_on DATE NOT NULL
);

-- What changed the balance that is held for the business; what it comes to is amount less cost.
CREATE TABLE entry (
  number BIGINT PRIMARY KEY,
  kind VARCHAR(16) NOT NULL,
  subject VARCHAR(60) NOT NULL,
  order_id VARCHAR(60) REFERENCES card_order (id),
  currency CHAR(3) NOT NULL,
  amount DECIMAL(18, 4) NOT NULL,
  cost DECIMAL(18, 4) NOT NULL,
  booked_on DATE NOT NULL,
  ready_on DATE NOT NULL,
  reason VARCHAR(100) DEFAULT '' NOT NULL,
  payout_id VARCHAR(60) REFERENCES payout (id)
);
CREATE INDEX entry_of_order ON entry (order_id, number);
CREATE INDEX entry_ready ON entry (payout_id, currency, ready_on);

CREATE TABLE refund (
  id VARCHAR(60) PRIMARY KEY,
  our_key VARCHAR(80) NOT NULL UNIQUE,
  order_id VARCHAR(60) NOT NULL REFERENCES card_order (id),
  amount DECIMAL(18, 4) NOT NULL,
  state VARCHAR(12) NOT NULL,
  asked_on DATE NOT NULL,
  ends_on DATE NOT NULL,
  fails BOOLEAN NOT NULL,
  reason VARCHAR(100) DEFAULT '' NOT NULL
);
CREATE INDEX refund_of_order ON refund (order_id);
CREATE INDEX refund_ends ON refund (state, ends_on);

CREATE TABLE contest (
  id VARCHAR(60) PRIMARY KEY,
  order_id VARCHAR(60) NOT NULL UNIQUE REFERENCES card_order (id),
  amount DECIMAL(18, 4) NOT NULL,
  state VARCHAR(12) NOT NULL,
  reason VARCHAR(100) NOT NULL,
  opened_on DATE NOT NULL,
  answer_by DATE NOT NULL,
  evidence VARCHAR(20000),
  answered_on DATE
);
CREATE INDEX contest_of_state ON contest (state, answer_by);

-- Events about what is no order's name none.
ALTER TABLE event ALTER COLUMN order_id SET NULL;
INSERT INTO dial VALUES ('shuffle', 0), ('cut-each', 0), ('contest', 0);

-- The last day that was lived through here.
CREATE TABLE lived (
  lived_on DATE NOT NULL
);
