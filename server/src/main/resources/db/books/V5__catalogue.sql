-- What is sold again and again.

-- A picture of an item, drawn anew, by its hash.
CREATE TABLE item_picture (
  hash CHAR(64) PRIMARY KEY,
  png BLOB NOT NULL
);

-- What is sold again and again. A count changes by a movement only; its sum stands on the item.
CREATE TABLE item (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  code VARCHAR(40) DEFAULT '' NOT NULL,
  code_key VARCHAR(120) GENERATED ALWAYS AS (NULLIF(LOWER(code), '')),
  description VARCHAR(500) NOT NULL,
  unit VARCHAR(30) DEFAULT '' NOT NULL,
  taxes VARCHAR(500) DEFAULT '[]' NOT NULL,
  asks_serial BOOLEAN DEFAULT FALSE NOT NULL,
  stock DECIMAL(24, 6),
  warn_below DECIMAL(16, 6),
  retired BOOLEAN DEFAULT FALSE NOT NULL,
  version INT DEFAULT 1 NOT NULL,
  category VARCHAR(60) DEFAULT '' NOT NULL,
  picture CHAR(64) REFERENCES item_picture (hash),
  UNIQUE (code_key)
);
CREATE INDEX item_by_description ON item (retired, description, id);
CREATE INDEX item_of_picture ON item (picture);

CREATE TABLE item_price (
  item_id BIGINT NOT NULL REFERENCES item (id) ON DELETE CASCADE,
  currency CHAR(3) NOT NULL,
  price DECIMAL(16, 6) NOT NULL CHECK (price >= 0),
  PRIMARY KEY (item_id, currency)
);

-- Every change of a count, and what it came of.
CREATE TABLE stock_movement (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  item_id BIGINT NOT NULL REFERENCES item (id),
  kind VARCHAR(12) NOT NULL,
  quantity DECIMAL(24, 6) NOT NULL,
  invoice_id BIGINT REFERENCES document (id),
  moved_at TIMESTAMP WITH TIME ZONE NOT NULL,
  who VARCHAR(120) NOT NULL
);
CREATE INDEX stock_of_item ON stock_movement (item_id, id);
CREATE INDEX stock_of_invoice ON stock_movement (invoice_id, id);

-- Items that are sold together: lines inserted at once.
CREATE TABLE bundle (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  version INT DEFAULT 1 NOT NULL
);

CREATE TABLE bundle_part (
  bundle_id BIGINT NOT NULL REFERENCES bundle (id) ON DELETE CASCADE,
  place INT NOT NULL,
  item_id BIGINT NOT NULL REFERENCES item (id),
  quantity DECIMAL(16, 6) NOT NULL,
  PRIMARY KEY (bundle_id, place)
);

-- Units of the business's own, with the code that other programs read.
CREATE TABLE own_unit (
  name VARCHAR(30) NOT NULL,
  name_key VARCHAR(90) GENERATED ALWAYS AS (LOWER(name)),
  code VARCHAR(3) NOT NULL,
  UNIQUE (name_key)
);

-- Discounts on the whole and charges that are kept for reuse, as they are typed.
CREATE TABLE kept_extra (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  charge BOOLEAN NOT NULL,
  description VARCHAR(300) NOT NULL,
  amount VARCHAR(40) NOT NULL,
  taxes VARCHAR(1000) NOT NULL
);
