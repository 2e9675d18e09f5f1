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

-- A message to a client; one to the business itself has none. What a reminder says is fixed when it is written, and its paper is
-- made from that. One that was called back before it left has given its key free; an act that was kept back before is kept
-- back again then. The document is the one whose page it leads to. One that leaves later has its moment by the business's
-- clock and what its sender changed, so that it is written on its day. One that came back stays so, with the address that it
-- came back from; a person has seen to it once it went again, or was set aside.
CREATE TABLE message (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  what_key VARCHAR(120) NOT NULL UNIQUE,
  message_id VARCHAR(200) NOT NULL UNIQUE,
  kind VARCHAR(20) NOT NULL,
  letter VARCHAR(20) NOT NULL,
  client_id BIGINT REFERENCES client (id),
  document_id BIGINT REFERENCES document (id),
  to_address VARCHAR(200) NOT NULL,
  copies_to VARCHAR(1100) DEFAULT '' NOT NULL,
  subject VARCHAR(500) NOT NULL,
  state VARCHAR(12) NOT NULL,
  tries INT DEFAULT 0 NOT NULL,
  next_try_at TIMESTAMP WITH TIME ZONE NOT NULL,
  error VARCHAR(400),
  made_on DATE NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  sent_on DATE,
  by_hand BOOLEAN DEFAULT FALSE NOT NULL,
  made_by_kind VARCHAR(10) NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  called_back BOOLEAN DEFAULT FALSE NOT NULL,
  kept_back_act VARCHAR(120),
  channel VARCHAR(8) NOT NULL,
  leave_at TIMESTAMP,
  own_subject VARCHAR(200) DEFAULT '' NOT NULL,
  own_line VARCHAR(500) DEFAULT '' NOT NULL,
  came_back_from VARCHAR(200),
  seen_to BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE INDEX message_waiting ON message (state, next_try_at, id);
CREATE INDEX message_of_client ON message (client_id, id);

-- Reports of mail that came back, each by its own Message-ID: read once, however often the mailbox shows it.
CREATE TABLE returned_mail (
  report_id VARCHAR(300) PRIMARY KEY,
  message_id BIGINT REFERENCES message (id) ON DELETE CASCADE,
  address VARCHAR(200) NOT NULL,
  read_at TIMESTAMP WITH TIME ZONE NOT NULL
);
CREATE INDEX returned_mail_of_message ON returned_mail (message_id);

-- How far the mailbox was read: numbers of IMAP (RFC 3501, 2.3.1.1), which count from the start where its validity changes.
CREATE TABLE mailbox_read (
  id INT PRIMARY KEY CHECK (id = 1),
  validity BIGINT NOT NULL,
  last_uid BIGINT NOT NULL
);

-- Every document that a message names, the main one too.
CREATE TABLE message_document (
  message_id BIGINT NOT NULL REFERENCES message (id) ON DELETE CASCADE,
  document_id BIGINT NOT NULL REFERENCES document (id),
  PRIMARY KEY (message_id, document_id)
);
CREATE INDEX message_of_document ON message_document (document_id, message_id);

-- What each letter asks for of which debt, and how sternly: no letter is milder than the latest that left.
CREATE TABLE message_debt (
  message_id BIGINT NOT NULL REFERENCES message (id) ON DELETE CASCADE,
  debt_id BIGINT NOT NULL REFERENCES debt (id) ON DELETE CASCADE,
  currency CHAR(3) NOT NULL,
  asked_minor BIGINT NOT NULL CHECK (asked_minor > 0),
  tone VARCHAR(10) NOT NULL,
  PRIMARY KEY (message_id, debt_id)
);
CREATE INDEX message_of_debt ON message_debt (debt_id, message_id);

-- Both forms of a letter as it went, and what the square code in it carries.
CREATE TABLE message_text (
  message_id BIGINT PRIMARY KEY REFERENCES message (id) ON DELETE CASCADE,
  html CLOB NOT NULL,
  text CLOB NOT NULL,
  code VARCHAR(1000),
  reminder CLOB
);

-- What was mailed is kept for good, once for each content.
CREATE TABLE paper (
  hash CHAR(64) PRIMARY KEY,
  content BLOB NOT NULL
);

-- What goes with a message, in its order: a paper, which is made as it leaves and kept then, or a file of a document.
CREATE TABLE message_attachment (
  message_id BIGINT NOT NULL REFERENCES message (id) ON DELETE CASCADE,
  place INT NOT NULL,
  kind VARCHAR(12) NOT NULL,
  document_id BIGINT REFERENCES document (id),
  file_id BIGINT,
  name VARCHAR(160) NOT NULL,
  hash CHAR(64) REFERENCES paper (hash),
  PRIMARY KEY (message_id, place)
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
