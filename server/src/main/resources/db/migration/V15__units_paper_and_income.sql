-- Units of the business's own, with the code that other programs read.
CREATE TABLE own_unit (
  name VARCHAR(30) NOT NULL,
  name_key VARCHAR(90) GENERATED ALWAYS AS (LOWER(name)),
  code VARCHAR(3) NOT NULL,
  UNIQUE (name_key)
);
-- What a line shows on paper (its quantity and price, hours, or its amount only), and the typeface.
ALTER TABLE document_setting ADD COLUMN line_shows VARCHAR(10) DEFAULT 'quantity' NOT NULL;
ALTER TABLE document_setting ADD COLUMN typeface VARCHAR(10) DEFAULT 'two' NOT NULL;
-- The business's own categories of income: of an item, and of what an entry posts to income.
ALTER TABLE item ADD COLUMN category VARCHAR(60) DEFAULT '' NOT NULL;
ALTER TABLE posting ADD COLUMN category VARCHAR(60) DEFAULT '' NOT NULL;
-- A picture of an item, drawn anew, by its hash.
CREATE TABLE item_picture (
  hash CHAR(64) PRIMARY KEY,
  png BLOB NOT NULL
);
ALTER TABLE item ADD COLUMN picture CHAR(64) REFERENCES item_picture (hash);
CREATE INDEX item_of_picture ON item (picture);
