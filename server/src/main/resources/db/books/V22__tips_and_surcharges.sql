-- What payers give on top of what they pay: tips, and what is asked for paying by card.

-- One row, once it was kept; sums and percentages as typed.
CREATE TABLE on_top_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  surcharge BOOLEAN NOT NULL,
  percent VARCHAR(20) NOT NULL,
  fixed VARCHAR(20) NOT NULL,
  most VARCHAR(20) NOT NULL,
  -- the tax that the surcharge bears; empty for none
  tax VARCHAR(60) NOT NULL,
  tips BOOLEAN NOT NULL,
  given VARCHAR(200) NOT NULL,
  free BOOLEAN NOT NULL,
  version INT DEFAULT 1 NOT NULL
);

-- Of an order, within its amount.
ALTER TABLE processor_order ADD COLUMN tip_minor BIGINT DEFAULT 0 NOT NULL CHECK (tip_minor >= 0);
ALTER TABLE processor_order ADD COLUMN surcharge_minor BIGINT DEFAULT 0 NOT NULL CHECK (surcharge_minor >= 0);
ALTER TABLE processor_order ADD COLUMN surcharge_tax_minor BIGINT DEFAULT 0 NOT NULL CHECK (surcharge_tax_minor >= 0);
ALTER TABLE processor_order ADD COLUMN surcharge_tax VARCHAR(60) DEFAULT '' NOT NULL;

-- Beside the amount of a payment: what came with it, and, below zero, what went with what was given back or taken back. The
-- movement is the payment itself, or the one that it went or came again with.
CREATE TABLE on_top (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  payment_id BIGINT NOT NULL REFERENCES movement (id),
  movement_id BIGINT NOT NULL REFERENCES movement (id),
  tip_minor BIGINT NOT NULL,
  surcharge_minor BIGINT NOT NULL,
  tax_minor BIGINT NOT NULL,
  tax VARCHAR(60) NOT NULL
);
CREATE INDEX on_top_of_payment ON on_top (payment_id);
CREATE INDEX on_top_of_movement ON on_top (movement_id);
