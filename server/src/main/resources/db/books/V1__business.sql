-- What the business says of itself, its taxes and its documents.

-- The logo as it is printed, and by what it is named in the documents that were issued with it.
CREATE TABLE logo (
  hash CHAR(64) PRIMARY KEY,
  png BLOB NOT NULL,
  width INT NOT NULL,
  height INT NOT NULL
);

-- The business itself: one row.
CREATE TABLE business (
  id INT PRIMARY KEY CHECK (id = 1),
  name VARCHAR(120) NOT NULL,
  tagline VARCHAR(200) DEFAULT '' NOT NULL,
  address VARCHAR(500) DEFAULT '' NOT NULL,
  email VARCHAR(200) NOT NULL,
  tax_number VARCHAR(40) DEFAULT '' NOT NULL,
  registered BOOLEAN NOT NULL,
  currency CHAR(3) NOT NULL,
  zone VARCHAR(60) NOT NULL,
  tax_rounding VARCHAR(10) NOT NULL,
  iban VARCHAR(40) DEFAULT '' NOT NULL,
  bic VARCHAR(20) DEFAULT '' NOT NULL,
  invoice_pattern VARCHAR(40) NOT NULL,
  credit_note_pattern VARCHAR(40) NOT NULL,
  days_to_pay INT NOT NULL CHECK (days_to_pay BETWEEN 0 AND 3650),
  footer VARCHAR(500) DEFAULT '' NOT NULL,
  version INT DEFAULT 1 NOT NULL,
  fees_first BOOLEAN DEFAULT FALSE NOT NULL,
  country VARCHAR(2) DEFAULT '' NOT NULL,
  decimal_mark VARCHAR(1) DEFAULT '.' NOT NULL,
  logo CHAR(64) REFERENCES logo (hash)
);

-- A tax that is no longer offered stays: drafts and issued documents name it.
CREATE TABLE tax (
  id VARCHAR(40) PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  rate DECIMAL(7, 4) NOT NULL CHECK (rate BETWEEN 0 AND 100),
  category VARCHAR(2) NOT NULL,
  compound BOOLEAN NOT NULL,
  reason VARCHAR(200) DEFAULT '' NOT NULL,
  place INT NOT NULL,
  retired BOOLEAN DEFAULT FALSE NOT NULL
);

-- The last number given in each series of a kind of document.
CREATE TABLE number_series (
  kind VARCHAR(20) NOT NULL,
  series INT NOT NULL,
  last INT NOT NULL,
  PRIMARY KEY (kind, series)
);

-- How documents look and what they say; labels and coins are kept as JSON. What a line shows is its quantity and price,
-- hours, or its amount only; the accent is #rrggbb, empty for the usual ink.
CREATE TABLE document_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  layout VARCHAR(20) NOT NULL,
  terms VARCHAR(1000000) NOT NULL,
  labels VARCHAR(1000000) NOT NULL,
  coins VARCHAR(1000000) NOT NULL,
  version INT DEFAULT 1 NOT NULL,
  accent VARCHAR(7) DEFAULT '' NOT NULL,
  line_shows VARCHAR(10) DEFAULT 'quantity' NOT NULL,
  typeface VARCHAR(10) DEFAULT 'two' NOT NULL,
  page_on_paper BOOLEAN DEFAULT TRUE NOT NULL
);

-- What one unit of a currency is worth in the own one, from a day on.
CREATE TABLE exchange_rate (
  currency CHAR(3) NOT NULL,
  from_on DATE NOT NULL,
  rate DECIMAL(24, 10) NOT NULL CHECK (rate > 0),
  PRIMARY KEY (currency, from_on)
);

-- Accounts for transfers in other currencies than the usual account's.
CREATE TABLE bank_account (
  currency CHAR(3) PRIMARY KEY,
  iban VARCHAR(40) NOT NULL,
  bic VARCHAR(20) NOT NULL
);

-- Schedules that the business keeps under a name; one of them is what a new invoice begins with.
CREATE TABLE kept_schedule (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  terms VARCHAR(10000) NOT NULL,
  usual BOOLEAN DEFAULT FALSE NOT NULL
);
-- What a business begins with.
INSERT INTO kept_schedule (name, terms) VALUES
  ('All in 30 days', '[{"deposit":false,"share":"rest","days":"30"}]'),
  ('40% deposit, the rest in 30 days',
   '[{"deposit":true,"share":"40%","days":"0"},{"deposit":false,"share":"rest","days":"30"}]'),
  ('Half now, half in 30 days',
   '[{"deposit":false,"share":"50%","days":"0"},{"deposit":false,"share":"50%","days":"30"}]');
