CREATE TABLE text_message (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  to_number VARCHAR(20) NOT NULL,
  from_name VARCHAR(120) NOT NULL,
  text VARCHAR(2000) NOT NULL,
  arrived_at TIMESTAMP NOT NULL
);
CREATE INDEX text_message_to ON text_message (to_number, id);
CREATE TABLE dead_number (
  number VARCHAR(20) PRIMARY KEY
);
-- How many of the next answers are cut off after the message was taken, and how many seconds each answer takes.
CREATE TABLE telegraph_dial (
  name VARCHAR(20) PRIMARY KEY,
  setting INT NOT NULL
);
INSERT INTO telegraph_dial VALUES ('cut', 0), ('wait', 0);
