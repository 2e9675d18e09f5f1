ALTER TABLE business ADD COLUMN quote_pattern VARCHAR(40) DEFAULT 'Q-{year}-{seq}' NOT NULL;

-- What a quote says beside what every document says: until when it can be accepted, under which terms, and what was typed, so
-- that it can be reckoned for whatever its client chooses.
CREATE TABLE quote (
  document_id BIGINT PRIMARY KEY REFERENCES document (id),
  valid_until DATE NOT NULL,
  conditions CLOB NOT NULL,
  offered CLOB NOT NULL
);
CREATE INDEX quote_until ON quote (valid_until, document_id);

-- The answer to a quote: there is one at most. The seal is a hash of all that was accepted.
CREATE TABLE quote_answer (
  document_id BIGINT PRIMARY KEY REFERENCES document (id),
  accepted BOOLEAN NOT NULL,
  by_hand BOOLEAN NOT NULL,
  name VARCHAR(200) NOT NULL,
  answered_on DATE NOT NULL,
  answered_at TIMESTAMP WITH TIME ZONE NOT NULL,
  address VARCHAR(64) DEFAULT '' NOT NULL,
  reason VARCHAR(1000) DEFAULT '' NOT NULL,
  ticked VARCHAR(2000) DEFAULT '' NOT NULL,
  seal CHAR(64)
);

-- What a client asks on a quote's page before it answers.
CREATE TABLE quote_question (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document_id BIGINT NOT NULL REFERENCES document (id),
  asked_on DATE NOT NULL,
  asked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  text VARCHAR(2000) NOT NULL,
  seen_to_on DATE
);
CREATE INDEX quote_question_of ON quote_question (document_id, id);

CREATE INDEX document_of_kind ON document (kind, state, id);
