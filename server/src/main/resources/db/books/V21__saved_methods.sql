-- Cards and mandates that clients let be kept, payments that are planned for a day, and what was asked for beforehand.

-- One row, once it was kept. later_days: how long after it is due a client may plan a payment; 0 for not at all.
CREATE TABLE saved_method_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  offered BOOLEAN NOT NULL,
  later_days INT NOT NULL CHECK (later_days >= 0),
  version INT DEFAULT 1 NOT NULL
);

-- Known to the processor by its token; a number never stands here. What its holder agreed to: whether the business may take
-- open sums from it (collects), so much at a time at most, how that was said, and in which words.
CREATE TABLE saved_method (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT NOT NULL REFERENCES client (id),
  at_processor BIGINT NOT NULL REFERENCES processor (id),
  token VARCHAR(80) NOT NULL,
  way VARCHAR(12) NOT NULL,
  name VARCHAR(60) NOT NULL,
  last_four VARCHAR(8) NOT NULL,
  -- month and year as on the card; empty for a bank account
  expires VARCHAR(5) NOT NULL,
  state VARCHAR(10) NOT NULL,
  collects BOOLEAN NOT NULL,
  currency CHAR(3),
  most_minor BIGINT CHECK (most_minor > 0),
  agreed_how VARCHAR(8) NOT NULL,
  agreed_words VARCHAR(1000) NOT NULL,
  kept_on DATE NOT NULL,
  UNIQUE (at_processor, token)
);
CREATE INDEX saved_method_of_client ON saved_method (client_id, state);
CREATE INDEX saved_method_state ON saved_method (state, id);

-- An order that is taken from what is kept (method_id), or whose card or account is to be kept, as agreed (keep_how null for not).
ALTER TABLE processor_order ADD COLUMN method_id BIGINT REFERENCES saved_method (id);
ALTER TABLE processor_order ADD COLUMN keep_how VARCHAR(8);
ALTER TABLE processor_order ADD COLUMN keep_collects BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE processor_order ADD COLUMN keep_most_minor BIGINT;
ALTER TABLE processor_order ADD COLUMN keep_words VARCHAR(1000) DEFAULT '' NOT NULL;

-- What is to be taken on a day, as its client wants it.
CREATE TABLE planned_payment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document_id BIGINT NOT NULL REFERENCES document (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  method_id BIGINT NOT NULL REFERENCES saved_method (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  on_day DATE NOT NULL,
  state VARCHAR(10) NOT NULL,
  why VARCHAR(300) DEFAULT '' NOT NULL,
  planned_on DATE NOT NULL
);
CREATE INDEX planned_payment_state ON planned_payment (state, on_day);
CREATE INDEX planned_payment_of_document ON planned_payment (document_id, state);
CREATE INDEX planned_payment_of_client ON planned_payment (client_id, state);

CREATE TABLE planned_debt (
  planned_id BIGINT NOT NULL REFERENCES planned_payment (id) ON DELETE CASCADE,
  debt_id BIGINT NOT NULL REFERENCES debt (id) ON DELETE CASCADE,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  PRIMARY KEY (planned_id, debt_id)
);
CREATE INDEX planned_debt_of_debt ON planned_debt (debt_id);

-- A card or mandate that a client is asked for before anything is due. Its token leads to the page. What was begun at a
-- processor there has a key of ours, the processor's own number, and its address.
CREATE TABLE method_request (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT NOT NULL REFERENCES client (id),
  token VARCHAR(64) NOT NULL UNIQUE,
  state VARCHAR(10) NOT NULL,
  asked_on DATE NOT NULL,
  at_processor BIGINT REFERENCES processor (id),
  keeping_key VARCHAR(80) UNIQUE,
  keeping_id VARCHAR(80),
  keep_at VARCHAR(500),
  collects BOOLEAN DEFAULT FALSE NOT NULL,
  currency CHAR(3),
  most_minor BIGINT,
  words VARCHAR(1000) DEFAULT '' NOT NULL,
  method_id BIGINT REFERENCES saved_method (id)
);
CREATE INDEX method_request_of_client ON method_request (client_id, state);
CREATE INDEX method_request_state ON method_request (state, id);
