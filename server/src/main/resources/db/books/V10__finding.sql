-- Finding anything, and views of lists.

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
CREATE INDEX find_entry_newest ON find_entry (kind, id DESC);

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
CREATE INDEX find_hit_of_entry_and_word ON find_hit (entry_id, word_id);
CREATE INDEX find_hit_of_entry ON find_hit (entry_id);

-- What changed since it was read last: read again before anybody looks for anything. A row for each change, so that two
-- who change the same thing at once never wait for one another here, and what is committed later is read later.
CREATE TABLE find_stale (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(12) NOT NULL,
  about_id BIGINT NOT NULL
);

-- Views of a list, kept under a name: what the address of the list holds.
CREATE TABLE kept_view (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(80) NOT NULL,
  shows VARCHAR(1000) NOT NULL,
  UNIQUE (place, name)
);
