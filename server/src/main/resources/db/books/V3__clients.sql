-- Whom the business works for.

-- One merged into another keeps its row, so that its address leads on.
CREATE TABLE client (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  contact VARCHAR(120) DEFAULT '' NOT NULL,
  email VARCHAR(200) DEFAULT '' NOT NULL,
  address VARCHAR(500) DEFAULT '' NOT NULL,
  tax_number VARCHAR(40) DEFAULT '' NOT NULL,
  version INT DEFAULT 1 NOT NULL,
  country VARCHAR(2) DEFAULT '' NOT NULL,
  certificate VARCHAR(80) DEFAULT '' NOT NULL,
  exempt_until DATE,
  kind VARCHAR(10) DEFAULT 'BUSINESS' NOT NULL,
  number VARCHAR(40) DEFAULT '' NOT NULL,
  phone VARCHAR(40) DEFAULT '' NOT NULL,
  delivery VARCHAR(500) DEFAULT '' NOT NULL,
  currency VARCHAR(3) DEFAULT '' NOT NULL,
  days_to_pay INT,
  taxes VARCHAR(500) DEFAULT '[]' NOT NULL,
  tags VARCHAR(4000) DEFAULT '[]' NOT NULL,
  notes VARCHAR(4000) DEFAULT '' NOT NULL,
  archived BOOLEAN DEFAULT FALSE NOT NULL,
  merged_into BIGINT REFERENCES client (id),
  schedule_id BIGINT REFERENCES kept_schedule (id) ON DELETE SET NULL
);
CREATE INDEX client_by_name ON client (name, id);

-- A client's people, in their order, and what each of them gets.
CREATE TABLE client_contact (
  client_id BIGINT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
  place INT NOT NULL,
  name VARCHAR(120) NOT NULL,
  email VARCHAR(200) DEFAULT '' NOT NULL,
  phone VARCHAR(40) DEFAULT '' NOT NULL,
  reminders BOOLEAN DEFAULT FALSE NOT NULL,
  receipts BOOLEAN DEFAULT FALSE NOT NULL,
  PRIMARY KEY (client_id, place)
);
