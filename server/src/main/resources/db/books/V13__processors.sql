-- Card processors. The credentials are sealed with a key that stands outside the books; those of the settings file stay in it.
CREATE TABLE processor (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  kind VARCHAR(40) NOT NULL,
  mode VARCHAR(4) NOT NULL,
  -- The end of the address to which its events go.
  hook_key VARCHAR(40) NOT NULL UNIQUE,
  from_settings BOOLEAN NOT NULL,
  credentials VARBINARY(20000),
  -- The IBAN of the account that it pays out to.
  pays_into VARCHAR(40),
  version INT DEFAULT 1 NOT NULL
);

INSERT INTO processor (name, kind, mode, hook_key, from_settings)
SELECT 'The counting house', 'COUNTING_HOUSE', 'ON', 'settings', TRUE WHERE EXISTS (SELECT 1 FROM card_order);

-- Which processor has an order; its own number of it is unique there only.
ALTER TABLE card_order ADD COLUMN at_processor BIGINT REFERENCES processor (id);
ALTER TABLE card_order ADD COLUMN order_id VARCHAR(80);
UPDATE card_order SET order_id = processor_id, at_processor = (SELECT id FROM processor WHERE hook_key = 'settings');
ALTER TABLE card_order ALTER COLUMN at_processor SET NOT NULL;
ALTER TABLE card_order DROP COLUMN processor_id;
ALTER TABLE card_order ADD CONSTRAINT card_order_at_processor UNIQUE (at_processor, order_id);
ALTER TABLE card_order ADD COLUMN test BOOLEAN DEFAULT FALSE NOT NULL;

-- What was paid on trial: no money, in no sum and no account.
CREATE TABLE test_payment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  order_key VARCHAR(80) NOT NULL UNIQUE,
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  client_name VARCHAR(120) NOT NULL,
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  number VARCHAR(60),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  paid_on DATE NOT NULL,
  card VARCHAR(120) NOT NULL
);
CREATE INDEX test_payment_of_invoice ON test_payment (invoice_id);
CREATE INDEX test_payment_of_client ON test_payment (client_id);
