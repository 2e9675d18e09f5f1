-- Addresses that take a payment with no invoice behind it, and what was begun on their pages.

CREATE TABLE payment_link (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  made_key VARCHAR(80) NOT NULL UNIQUE,
  token VARCHAR(64) NOT NULL UNIQUE,
  title VARCHAR(120) NOT NULL,
  description VARCHAR(4000) NOT NULL,
  currency CHAR(3) NOT NULL,
  least_minor BIGINT NOT NULL CHECK (least_minor > 0),
  most_minor BIGINT NOT NULL CHECK (most_minor > 0),
  -- keys of the taxes that are inside the amount, with blanks between
  taxes VARCHAR(400) NOT NULL,
  once BOOLEAN NOT NULL,
  ends_on DATE,
  terms VARCHAR(8000) NOT NULL,
  -- what its payer fills in besides, as JSON
  fields VARCHAR(8000) NOT NULL,
  thanks VARCHAR(4000) NOT NULL,
  onward VARCHAR(500) NOT NULL,
  client_id BIGINT REFERENCES client (id),
  holds BOOLEAN NOT NULL,
  -- whether it is one of the business's links; else it was made for one card that was at hand, with no invoice
  shown BOOLEAN NOT NULL,
  closed BOOLEAN DEFAULT FALSE NOT NULL,
  version INT DEFAULT 1 NOT NULL,
  made_on DATE NOT NULL
);
CREATE INDEX payment_link_of_client ON payment_link (client_id);

-- What somebody is about to pay on a link's page, or paid; what was typed there, and the conditions that were accepted, as
-- they stood then. Its token is the payer's own.
CREATE TABLE link_payment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  link_id BIGINT NOT NULL REFERENCES payment_link (id),
  token VARCHAR(64) NOT NULL UNIQUE,
  pay_key VARCHAR(80) NOT NULL,
  client_id BIGINT REFERENCES client (id),
  payer_name VARCHAR(200) NOT NULL,
  payer_email VARCHAR(200) NOT NULL,
  answers VARCHAR(20000) NOT NULL,
  terms VARCHAR(8000) NOT NULL,
  title VARCHAR(120) NOT NULL,
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  -- how much of it is for delivery
  delivery_minor BIGINT NOT NULL CHECK (delivery_minor >= 0),
  begun_on DATE NOT NULL,
  invoice_id BIGINT REFERENCES document (id) ON DELETE SET NULL,
  UNIQUE (link_id, pay_key)
);
CREATE INDEX link_payment_of_client ON link_payment (client_id);
CREATE INDEX link_payment_of_invoice ON link_payment (invoice_id);

ALTER TABLE processor_order ADD COLUMN link_id BIGINT REFERENCES payment_link (id);
CREATE INDEX processor_order_of_link ON processor_order (link_id, state);
ALTER TABLE processor_order ADD COLUMN link_payment_id BIGINT REFERENCES link_payment (id);
CREATE INDEX processor_order_of_link_payment ON processor_order (link_payment_id, state);

-- Whoever makes a client of somebody who paid takes this row first: two payments of one new payer make one client.
CREATE TABLE new_payer_turn (one INT PRIMARY KEY);
INSERT INTO new_payer_turn (one) VALUES (1);
