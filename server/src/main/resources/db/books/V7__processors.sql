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

-- An order at a processor. By the business's clock: when it was opened, and when the processor last told how it stands; by
-- the system's: when it was made and asked about last. Whoever was asked longest ago is asked next. The processor's own
-- number of it is unique there only.
CREATE TABLE processor_order (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(8) NOT NULL,
  order_key VARCHAR(80) NOT NULL UNIQUE,
  document_id BIGINT REFERENCES document (id),
  client_id BIGINT REFERENCES client (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  captured_minor BIGINT DEFAULT 0 NOT NULL CHECK (captured_minor >= 0),
  state VARCHAR(12) NOT NULL,
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  test BOOLEAN NOT NULL,
  order_id VARCHAR(80),
  pay_at VARCHAR(500),
  declined VARCHAR(200),
  expected_on DATE,
  lapses_at TIMESTAMP WITH TIME ZONE,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  opened_at TIMESTAMP WITH TIME ZONE,
  asked_at TIMESTAMP WITH TIME ZONE,
  polled_at TIMESTAMP WITH TIME ZONE,
  trouble VARCHAR(300),
  UNIQUE (at_processor, order_id)
);
CREATE INDEX processor_order_live ON processor_order (state, id);
CREATE INDEX processor_order_of_document ON processor_order (document_id, state);
CREATE INDEX processor_order_of_client ON processor_order (client_id, state);
CREATE INDEX processor_order_polled ON processor_order (state, polled_at, id);

-- What an order brings for which debt: so much of it is in transit while it may be paid.
CREATE TABLE order_debt (
  order_id BIGINT NOT NULL REFERENCES processor_order (id) ON DELETE CASCADE,
  debt_id BIGINT NOT NULL REFERENCES debt (id) ON DELETE CASCADE,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  PRIMARY KEY (order_id, debt_id)
);
CREATE INDEX order_debt_of_debt ON order_debt (debt_id);

-- Events of the processors that were taken in.
CREATE TABLE hook_seen (
  id VARCHAR(80) PRIMARY KEY,
  seen_at TIMESTAMP WITH TIME ZONE NOT NULL
);

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
