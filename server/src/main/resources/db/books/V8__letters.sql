-- What was written to whom.

-- How the business words a letter. Only added to: the latest version counts, and one without a text goes back to ours.
CREATE TABLE letter_wording (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  for_payer BOOLEAN NOT NULL,
  version INT NOT NULL CHECK (version > 0),
  subject VARCHAR(200),
  body VARCHAR(5000),
  made_on DATE NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  UNIQUE (kind, for_payer, version)
);

-- A letter. A reminder is about several invoices; what it says is fixed when it is written, and its paper is made from that.
-- One that was called back before it left has given its key free; an act that was kept back before is kept back again then.
CREATE TABLE message (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  what_key VARCHAR(120) NOT NULL UNIQUE,
  message_id VARCHAR(200) NOT NULL UNIQUE,
  kind VARCHAR(20) NOT NULL,
  letter VARCHAR(20) NOT NULL,
  client_id BIGINT NOT NULL REFERENCES client (id),
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  to_address VARCHAR(200) NOT NULL,
  subject VARCHAR(500) NOT NULL,
  attachment VARCHAR(20) NOT NULL,
  state VARCHAR(12) NOT NULL,
  tries INT DEFAULT 0 NOT NULL,
  next_try_at TIMESTAMP WITH TIME ZONE NOT NULL,
  error VARCHAR(400),
  made_on DATE NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  sent_on DATE,
  by_hand BOOLEAN DEFAULT FALSE NOT NULL,
  credit_note_id BIGINT REFERENCES document (id),
  made_by_kind VARCHAR(10) NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  called_back BOOLEAN DEFAULT FALSE NOT NULL,
  kept_back_act VARCHAR(120)
);
CREATE INDEX message_waiting ON message (state, next_try_at, id);
CREATE INDEX message_of_invoice ON message (invoice_id, id);
CREATE INDEX message_of_client ON message (client_id, id);

-- Both forms of a letter as it went, and what the square code in it carries.
CREATE TABLE message_text (
  message_id BIGINT PRIMARY KEY REFERENCES message (id) ON DELETE CASCADE,
  html CLOB NOT NULL,
  text CLOB NOT NULL,
  code VARCHAR(1000),
  reminder CLOB
);

CREATE TABLE message_about (
  message_id BIGINT NOT NULL REFERENCES message (id),
  invoice_id BIGINT NOT NULL REFERENCES document (id),
  PRIMARY KEY (message_id, invoice_id)
);
CREATE INDEX message_about_invoice ON message_about (invoice_id, message_id);

-- What was mailed is kept for good, once for each content.
CREATE TABLE paper (
  hash CHAR(64) PRIMARY KEY,
  content BLOB NOT NULL
);

CREATE TABLE message_paper (
  message_id BIGINT PRIMARY KEY REFERENCES message (id),
  name VARCHAR(120) NOT NULL,
  hash CHAR(64) NOT NULL REFERENCES paper (hash)
);

-- What happened to an invoice or a client, told as a sentence. With what it is about it is shown once, beside its letter,
-- payment or late fee.
CREATE TABLE happening (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  invoice_id BIGINT,
  client_id BIGINT,
  happened_on DATE NOT NULL,
  happened_at TIMESTAMP WITH TIME ZONE NOT NULL,
  actor VARCHAR(10) NOT NULL,
  who VARCHAR(120) NOT NULL,
  what VARCHAR(1000) NOT NULL,
  about_kind VARCHAR(10),
  about_id BIGINT
);
CREATE INDEX happening_of_invoice ON happening (invoice_id, id);
CREATE INDEX happening_of_client ON happening (client_id, id);
