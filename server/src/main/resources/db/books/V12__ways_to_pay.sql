-- In which ways clients can pay.

-- The rules of each way, as typed: one row.
CREATE TABLE way_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  ways VARCHAR(1000000) NOT NULL,
  version INT DEFAULT 1 NOT NULL
);

-- Ways that a client, or one document, is limited to: words with blanks between, none of them where it is empty.
CREATE TABLE client_way (
  client_id BIGINT PRIMARY KEY REFERENCES client (id),
  ways VARCHAR(80) NOT NULL
);

CREATE TABLE document_way (
  document_id BIGINT PRIMARY KEY REFERENCES document (id) ON DELETE CASCADE,
  ways VARCHAR(80) NOT NULL
);
