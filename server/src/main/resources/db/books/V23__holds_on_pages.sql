-- What a page takes, and what whoever paid on it gets.

-- Documents whose page only holds a card's money, until the work is done.
CREATE TABLE document_hold (
  document_id BIGINT PRIMARY KEY REFERENCES document (id) ON DELETE CASCADE
);

-- Whether a payer gets a receipt, the invoice marked paid, or nothing: one row, once it was chosen.
CREATE TABLE receipt_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  gets VARCHAR(20) NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
