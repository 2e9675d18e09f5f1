-- What the business hears of: each thing once, on open pages at once, and by mail as it wants.
CREATE TABLE notice (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind VARCHAR(12) NOT NULL,
  text VARCHAR(500) NOT NULL,
  currency CHAR(3),
  amount_minor BIGINT,
  client_id BIGINT REFERENCES client (id),
  document_id BIGINT REFERENCES document (id),
  on_day DATE NOT NULL,
  at TIMESTAMP WITH TIME ZONE NOT NULL,
  mailed BOOLEAN DEFAULT FALSE NOT NULL
);
CREATE INDEX notice_to_mail ON notice (mailed, id);

CREATE TABLE notice_setting (
  id INT PRIMARY KEY CHECK (id = 1),
  mail VARCHAR(8) NOT NULL,
  address VARCHAR(200) NOT NULL,
  evening VARCHAR(5) NOT NULL,
  kinds VARCHAR(80) NOT NULL,
  version INT DEFAULT 1 NOT NULL
);
