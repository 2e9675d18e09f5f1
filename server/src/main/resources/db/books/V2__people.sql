-- Who signs in.

-- Who may sign in.
CREATE TABLE person (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  email VARCHAR(200) NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  passphrase VARCHAR(300) NOT NULL
);

-- Who signed in, who tried to, what of importance was changed; by the system's clock.
CREATE SEQUENCE access_log_id;
CREATE TABLE access_log (
  id BIGINT PRIMARY KEY,
  at TIMESTAMP WITH TIME ZONE NOT NULL,
  what VARCHAR(100) NOT NULL,
  who VARCHAR(200) NOT NULL,
  from_address VARCHAR(60) NOT NULL,
  browser VARCHAR(200) NOT NULL,
  times INT NOT NULL
);
CREATE INDEX access_log_failed ON access_log (from_address, what, at);
