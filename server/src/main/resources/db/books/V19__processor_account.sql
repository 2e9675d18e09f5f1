-- What card processors book, and what becomes of payments afterwards.

-- In which ways an order may be paid, how it was paid, and from which day on a bank debit is certain (expected_on).
ALTER TABLE processor_order ADD COLUMN takes VARCHAR(40) DEFAULT 'CARD' NOT NULL;
ALTER TABLE processor_order ADD COLUMN paid_with VARCHAR(60) DEFAULT '' NOT NULL;

-- Of a payment: how much of it went back, and how it stands where its bank took it back.
ALTER TABLE movement ADD COLUMN back_minor BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE movement ADD COLUMN stands VARCHAR(12) DEFAULT '' NOT NULL;
CREATE INDEX movement_of ON movement (of_id, id);
CREATE INDEX movement_of_payout ON movement (payout_id, id);

-- The account that a processor keeps for the business, as it tells it: numbered without a gap, each booked here once. What could
-- not be booked says why, and is tried again.
CREATE TABLE processor_entry (
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  number BIGINT NOT NULL,
  kind VARCHAR(16) NOT NULL,
  subject VARCHAR(80) NOT NULL,
  order_key VARCHAR(80),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  cost_minor BIGINT NOT NULL,
  booked_on DATE NOT NULL,
  reason VARCHAR(200) NOT NULL,
  answer_by DATE,
  movement_id BIGINT REFERENCES movement (id),
  payout_id BIGINT REFERENCES movement (id),
  trouble VARCHAR(300),
  PRIMARY KEY (at_processor, number)
);
CREATE INDEX processor_entry_of_subject ON processor_entry (at_processor, subject, kind);
CREATE INDEX processor_entry_of_payout ON processor_entry (payout_id, number);
CREATE INDEX processor_entry_of_movement ON processor_entry (movement_id);
CREATE INDEX processor_entry_trouble ON processor_entry (trouble);

-- Money that is to go back through a processor: booked when it is asked for, and put back where the processor will not.
CREATE TABLE refund_order (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  refund_key VARCHAR(80) NOT NULL UNIQUE,
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  order_id VARCHAR(80) NOT NULL,
  movement_id BIGINT NOT NULL REFERENCES movement (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  state VARCHAR(8) NOT NULL,
  why VARCHAR(300) DEFAULT '' NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  noted BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE INDEX refund_order_state ON refund_order (state, id);
CREATE INDEX refund_order_of_movement ON refund_order (movement_id);

-- What a payer's bank took back, and our answer to it.
CREATE TABLE dispute (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  contest VARCHAR(80) NOT NULL,
  payment_id BIGINT NOT NULL REFERENCES movement (id),
  movement_id BIGINT NOT NULL REFERENCES movement (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  document_id BIGINT REFERENCES document (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  cost_minor BIGINT NOT NULL,
  reason VARCHAR(200) NOT NULL,
  state VARCHAR(8) NOT NULL,
  opened_on DATE NOT NULL,
  answer_by DATE NOT NULL,
  evidence VARCHAR(20000),
  answered_on DATE,
  decided_on DATE,
  UNIQUE (at_processor, contest)
);
CREATE INDEX dispute_state ON dispute (state, answer_by);
CREATE INDEX dispute_of_payment ON dispute (payment_id);

-- The list of payments has an address of its own.
UPDATE kept_view SET place = '/money-in/list' WHERE place = '/money-in';

-- Whether a card's money is only held until the business takes it; expected_on is its last day then.
ALTER TABLE processor_order ADD COLUMN holds BOOLEAN DEFAULT FALSE NOT NULL;
