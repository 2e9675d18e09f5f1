CREATE TABLE card_order (
  id VARCHAR(60) PRIMARY KEY,
  our_key VARCHAR(80) NOT NULL UNIQUE,
  amount DECIMAL(18, 4) NOT NULL,
  currency CHAR(3) NOT NULL,
  description VARCHAR(200) NOT NULL,
  return_to VARCHAR(500) NOT NULL,
  state VARCHAR(12) NOT NULL CHECK (state IN ('open', 'paid', 'withdrawn')),
  made_at TIMESTAMP NOT NULL,
  payment_id VARCHAR(60) UNIQUE,
  paid_on DATE,
  fee DECIMAL(18, 4),
  card_last_four CHAR(4),
  card_expiry CHAR(5),
  awaits_code BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE TABLE attempt (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  order_id VARCHAR(60) NOT NULL REFERENCES card_order (id),
  made_at TIMESTAMP NOT NULL,
  last_four CHAR(4) NOT NULL,
  outcome VARCHAR(20) NOT NULL
);
CREATE TABLE event (
  id VARCHAR(60) PRIMARY KEY,
  order_id VARCHAR(60) NOT NULL REFERENCES card_order (id),
  kind VARCHAR(30) NOT NULL,
  due_at TIMESTAMP NOT NULL,
  copies INT NOT NULL,
  tries INT DEFAULT 0 NOT NULL,
  state VARCHAR(12) NOT NULL CHECK (state IN ('waiting', 'delivered', 'lost', 'given up'))
);
CREATE INDEX event_due ON event (state, due_at);
CREATE TABLE dial (
  name VARCHAR(20) PRIMARY KEY,
  setting INT NOT NULL
);
INSERT INTO dial VALUES ('lose', 0), ('double', 0), ('delay', 0), ('cut', 0);
CREATE TABLE business_date (
  today DATE NOT NULL
);
