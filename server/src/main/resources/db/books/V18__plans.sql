-- What a client picked of the installments that its invoice offered: once. What was offered stands in the invoice itself.
CREATE TABLE picked_plan (
  document_id BIGINT PRIMARY KEY REFERENCES document (id),
  installments INT NOT NULL CHECK (installments > 1),
  picked_on DATE NOT NULL,
  picked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  address VARCHAR(64) DEFAULT '' NOT NULL
);

-- Who accepted an invoice whose text and files are accepted before anything is picked or paid. The seal is a hash of both.
CREATE TABLE invoice_acceptance (
  document_id BIGINT PRIMARY KEY REFERENCES document (id),
  name VARCHAR(200) NOT NULL,
  accepted_on DATE NOT NULL,
  accepted_at TIMESTAMP WITH TIME ZONE NOT NULL,
  address VARCHAR(64) DEFAULT '' NOT NULL,
  seal CHAR(64) NOT NULL
);

-- What the business allows on its clients' pages.
CREATE TABLE page_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  other_amounts BOOLEAN NOT NULL
);

-- Whoever paid, where that is somebody else than the client.
ALTER TABLE processor_order ADD COLUMN payer_name VARCHAR(200) DEFAULT '' NOT NULL;
ALTER TABLE processor_order ADD COLUMN payer_email VARCHAR(200) DEFAULT '' NOT NULL;
ALTER TABLE movement ADD COLUMN payer_name VARCHAR(200) DEFAULT '' NOT NULL;
ALTER TABLE movement ADD COLUMN payer_email VARCHAR(200) DEFAULT '' NOT NULL;
