-- Documents of every kind, and what is kept with them.

-- What lists filter, sort or sum stands here; the texts have a table of their own. Drafts stand first in a list of
-- everything: they have no day yet. A number has its place in its series: 10000 comes after 9999. What asks for money
-- stands on a shelf: written, open or settled.
CREATE TABLE document (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(16) NOT NULL,
  state VARCHAR(10) NOT NULL,
  client_id BIGINT REFERENCES client (id),
  client_name VARCHAR(120) DEFAULT '' NOT NULL,
  number VARCHAR(60),
  series INT,
  seq INT,
  subject VARCHAR(200) DEFAULT '' NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT,
  issued_on DATE,
  issued_version INT,
  open_minor BIGINT DEFAULT 0 NOT NULL CHECK (open_minor >= 0),
  next_due_on DATE,
  settled_on DATE,
  voided_on DATE,
  given_on DATE,
  version INT DEFAULT 1 NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  listed_on DATE GENERATED ALWAYS AS (COALESCE(issued_on, DATE '9999-12-31')),
  shelf VARCHAR(8) GENERATED ALWAYS AS (CASE kind
    WHEN 'invoice' THEN CASE state WHEN 'void' THEN 'settled' ELSE state END
    WHEN 'deposit invoice' THEN CASE state WHEN 'void' THEN 'settled' ELSE state END END),
  UNIQUE (kind, number),
  CHECK ((state = 'draft') = (issued_on IS NULL)),
  CHECK ((state = 'void') = (voided_on IS NOT NULL)),
  CHECK ((issued_on IS NULL) = (issued_version IS NULL)),
  CHECK ((number IS NULL) = (seq IS NULL)),
  CHECK (CASE WHEN issued_on IS NOT NULL THEN number IS NOT NULL AND client_id IS NOT NULL AND total_minor IS NOT NULL
    ELSE TRUE END)
);
CREATE INDEX document_listed ON document (listed_on DESC, id DESC);
CREATE INDEX document_open ON document (shelf, next_due_on, id);
CREATE INDEX document_settled ON document (shelf, settled_on DESC, id DESC);
CREATE INDEX document_of_client ON document (client_id, id);
CREATE INDEX document_open_of_client ON document (client_id, shelf, id);
CREATE INDEX document_settled_of_client ON document (client_id, shelf, settled_on);

-- What is open of a document that asks for money, by the day on which it is due: kept whenever its debts change.
CREATE TABLE document_due (
  document_id BIGINT NOT NULL REFERENCES document (id) ON DELETE CASCADE,
  due_on DATE NOT NULL,
  open_minor BIGINT NOT NULL,
  PRIMARY KEY (document_id, due_on)
);

-- Long texts, apart, so that lists do not read them: as typed, and as issued. What was issued is never changed; what
-- was typed stays as it was when the document is issued.
CREATE TABLE document_content (
  document_id BIGINT NOT NULL REFERENCES document (id) ON DELETE CASCADE,
  stage VARCHAR(6) NOT NULL,
  version INT NOT NULL,
  format INT NOT NULL,
  body CLOB NOT NULL,
  PRIMARY KEY (document_id, stage, version)
);

-- A document that became a draft again before it was sent: whose it was, and under which version it is kept what it said.
CREATE TABLE document_taken_back (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document_id BIGINT NOT NULL REFERENCES document (id),
  client_id BIGINT NOT NULL REFERENCES client (id),
  issued_on DATE NOT NULL,
  issued_version INT NOT NULL,
  taken_back_on DATE NOT NULL,
  why VARCHAR(1000) NOT NULL,
  who VARCHAR(120) NOT NULL
);
CREATE INDEX document_taken_back_of ON document_taken_back (document_id, id);

-- What one document is to another. A credit note says why, whether nothing is left after it, and all that was taken of
-- the invoice up to and with it.
CREATE TABLE document_relation (
  from_id BIGINT NOT NULL REFERENCES document (id) ON DELETE CASCADE,
  to_id BIGINT NOT NULL REFERENCES document (id),
  kind VARCHAR(12) NOT NULL,
  why VARCHAR(300),
  whole BOOLEAN,
  taken CLOB,
  PRIMARY KEY (from_id, kind, to_id),
  CHECK ((kind = 'corrects') = (taken IS NOT NULL))
);
CREATE INDEX document_relation_to ON document_relation (to_id, kind, from_id);

-- Files kept with a document. They are copied, never shared: what was sent with an invoice stays with it.
CREATE TABLE attachment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document_id BIGINT NOT NULL REFERENCES document (id),
  name VARCHAR(120) NOT NULL,
  type VARCHAR(100) NOT NULL,
  size INT NOT NULL CHECK (size > 0),
  sent BOOLEAN NOT NULL,
  content BLOB NOT NULL
);
CREATE INDEX attachment_of_document ON attachment (document_id, id);

-- Clients' addresses, and where each leads: to nothing any more after its last day or once it was withdrawn, to where
-- another leads once that took its place.
CREATE TABLE link (
  made_no BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  token VARCHAR(64) NOT NULL UNIQUE,
  document_id BIGINT REFERENCES document (id) ON DELETE CASCADE,
  ends_on DATE,
  withdrawn_at TIMESTAMP WITH TIME ZONE,
  superseded_by VARCHAR(64) REFERENCES link (token)
);
CREATE INDEX link_of_document ON link (document_id, made_no);

-- A day on which a client opened a document's page.
CREATE TABLE page_opening (
  document_id BIGINT NOT NULL REFERENCES document (id),
  opened_on DATE NOT NULL,
  PRIMARY KEY (document_id, opened_on)
);
