-- Invoices, credit notes, and what is kept with them.

-- What lists filter, sort or sum stands here; the texts have a table of their own. Drafts stand first in a list
-- of everything: they have no day yet. A number has its place in its series: 10000 comes after 9999.
CREATE TABLE invoice (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  client_id BIGINT REFERENCES client (id),
  client_name VARCHAR(120) DEFAULT '' NOT NULL,
  bucket VARCHAR(8) NOT NULL,
  number VARCHAR(60) UNIQUE,
  series INT,
  seq INT,
  subject VARCHAR(200) DEFAULT '' NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT,
  open_minor BIGINT DEFAULT 0 NOT NULL CHECK (open_minor >= 0),
  next_due_on DATE,
  issued_on DATE,
  settled_on DATE,
  replaces_id BIGINT REFERENCES invoice (id),
  version INT DEFAULT 1 NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  voided_on DATE,
  given_on DATE,
  listed_on DATE GENERATED ALWAYS AS (COALESCE(issued_on, DATE '9999-12-31'))
);
CREATE INDEX invoice_listed ON invoice (listed_on DESC, id DESC);
CREATE INDEX invoice_open ON invoice (bucket, next_due_on, id);
CREATE INDEX invoice_settled ON invoice (bucket, settled_on DESC, id DESC);
CREATE INDEX invoice_of_client ON invoice (client_id, id);
CREATE INDEX invoice_open_of_client ON invoice (client_id, bucket, id);
CREATE INDEX invoice_settled_of_client ON invoice (client_id, bucket, settled_on);

-- What is open of an invoice, by the day on which it is due: kept beside it whenever its debts change.
CREATE TABLE invoice_due (
  invoice_id BIGINT NOT NULL REFERENCES invoice (id) ON DELETE CASCADE,
  due_on DATE NOT NULL,
  open_minor BIGINT NOT NULL,
  PRIMARY KEY (invoice_id, due_on)
);

-- Long texts, apart, so that lists do not read them: as typed, and as issued.
CREATE TABLE invoice_text (
  invoice_id BIGINT PRIMARY KEY REFERENCES invoice (id) ON DELETE CASCADE,
  typed CLOB NOT NULL,
  fixed CLOB
);

-- What an invoice said before it was taken back to a draft.
CREATE TABLE earlier_text (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  number VARCHAR(60) NOT NULL,
  issued_on DATE NOT NULL,
  fixed CLOB NOT NULL,
  taken_back_on DATE NOT NULL,
  why VARCHAR(1000) NOT NULL,
  who VARCHAR(120) NOT NULL
);
CREATE INDEX earlier_text_of_invoice ON earlier_text (invoice_id, id);

-- An invoice can have several credit notes, each for a part. What all of them took together stands on the latest.
CREATE TABLE credit_note (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  number VARCHAR(60) NOT NULL UNIQUE,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  issued_on DATE NOT NULL,
  reason VARCHAR(300) NOT NULL,
  currency CHAR(3) NOT NULL,
  total_minor BIGINT NOT NULL,
  whole BOOLEAN NOT NULL
);
CREATE INDEX credit_note_of_invoice ON credit_note (invoice_id, id);

CREATE TABLE credit_note_text (
  credit_note_id BIGINT PRIMARY KEY REFERENCES credit_note (id) ON DELETE CASCADE,
  fixed CLOB NOT NULL,
  taken CLOB NOT NULL
);

-- Files kept with a document. They are copied, never shared: what was sent with an invoice stays with it.
CREATE TABLE attachment (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  name VARCHAR(120) NOT NULL,
  type VARCHAR(100) NOT NULL,
  size INT NOT NULL CHECK (size > 0),
  sent BOOLEAN NOT NULL,
  content BLOB NOT NULL
);
CREATE INDEX attachment_of_invoice ON attachment (invoice_id, id);

-- Clients' addresses, and where each leads: to nothing any more after its last day or once it was withdrawn, to where
-- another leads once that took its place.
CREATE TABLE link (
  made_no BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  token VARCHAR(64) NOT NULL UNIQUE,
  invoice_id BIGINT REFERENCES invoice (id) ON DELETE CASCADE,
  ends_on DATE,
  withdrawn_at TIMESTAMP WITH TIME ZONE,
  superseded_by VARCHAR(64) REFERENCES link (token)
);
CREATE INDEX link_of_invoice ON link (invoice_id, made_no);

-- A day on which a client opened an invoice's page.
CREATE TABLE page_opening (
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  opened_on DATE NOT NULL,
  PRIMARY KEY (invoice_id, opened_on)
);
