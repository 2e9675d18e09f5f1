-- What a client is asked for before it falls due: a deposit on an accepted quote, or a part of an open invoice. Nothing of it
-- is booked until money comes; what came is read off the books, so that it says nothing of its own.
CREATE TABLE request (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  -- Of whoever asked: the same twice is one request.
  request_key VARCHAR(60) NOT NULL UNIQUE,
  document_id BIGINT NOT NULL REFERENCES document (id),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  -- Of an invoice, what was open on it when this was asked.
  open_minor BIGINT,
  asked_on DATE NOT NULL,
  asked_at TIMESTAMP WITH TIME ZONE NOT NULL,
  words VARCHAR(500) DEFAULT '' NOT NULL,
  withdrawn_on DATE
);
CREATE INDEX request_of_document ON request (document_id, id);
