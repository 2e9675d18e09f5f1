-- What can be found, by its words. Each word stands once, with what is left of it without any one letter.
CREATE TABLE find_entry (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(12) NOT NULL,
  about_id BIGINT NOT NULL,
  place VARCHAR(60) NOT NULL,
  title VARCHAR(300) NOT NULL,
  under VARCHAR(400) NOT NULL,
  UNIQUE (kind, about_id)
);
CREATE TABLE find_word (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  word VARCHAR(40) NOT NULL UNIQUE
);
CREATE TABLE find_slip (
  slip VARCHAR(40) NOT NULL,
  word_id BIGINT NOT NULL REFERENCES find_word (id),
  PRIMARY KEY (slip, word_id)
);
CREATE TABLE find_hit (
  word_id BIGINT NOT NULL REFERENCES find_word (id),
  kind VARCHAR(12) NOT NULL,
  entry_id BIGINT NOT NULL REFERENCES find_entry (id) ON DELETE CASCADE,
  PRIMARY KEY (word_id, kind, entry_id)
);
CREATE INDEX find_hit_of_entry ON find_hit (entry_id);
-- What changed since it was read last: read again before anybody looks for anything. A row for each change, so that two
-- who change the same thing at once never wait for one another here, and what is committed later is read later.
CREATE TABLE find_stale (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(12) NOT NULL,
  about_id BIGINT NOT NULL
);
INSERT INTO find_stale (kind, about_id) SELECT 'CLIENT', id FROM client;
INSERT INTO find_stale (kind, about_id) SELECT 'INVOICE', id FROM invoice;
INSERT INTO find_stale (kind, about_id) SELECT 'CREDIT_NOTE', id FROM credit_note;
INSERT INTO find_stale (kind, about_id) SELECT 'PAYMENT', id FROM payment;
INSERT INTO find_stale (kind, about_id) SELECT 'ITEM', id FROM item;
INSERT INTO find_stale (kind, about_id) SELECT 'BUNDLE', id FROM bundle;
