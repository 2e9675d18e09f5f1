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
-- The logo: as it is printed, and by what it is named in the documents that were issued with it.
CREATE TABLE logo (
  hash CHAR(64) PRIMARY KEY,
  png BLOB NOT NULL,
  width INT NOT NULL,
  height INT NOT NULL
);
ALTER TABLE business ADD COLUMN logo CHAR(64) REFERENCES logo (hash);
