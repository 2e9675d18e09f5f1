-- Cards and bank accounts that payers let a business use again, known to it by a token only.
CREATE TABLE kept_method (
  id VARCHAR(60) PRIMARY KEY,
  way VARCHAR(8) NOT NULL,
  -- the name of the test card, or of the simulated bank account: never a number
  stands_for VARCHAR(30) NOT NULL,
  last_four VARCHAR(4) NOT NULL,
  expiry VARCHAR(5),
  kept_on DATE NOT NULL,
  removed BOOLEAN DEFAULT FALSE NOT NULL
);

-- keeps: whether what pays the order is kept for later. method_id: the kept one that it was made of, or is taken from.
ALTER TABLE card_order ADD COLUMN keeps BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE card_order ADD COLUMN taken_from VARCHAR(60) REFERENCES kept_method (id);
ALTER TABLE card_order ADD COLUMN kept_as VARCHAR(60) REFERENCES kept_method (id);

-- A page on which a card or an account is kept, and nothing is taken.
CREATE TABLE keeping (
  id VARCHAR(60) PRIMARY KEY,
  our_key VARCHAR(80) NOT NULL UNIQUE,
  description VARCHAR(200) NOT NULL,
  return_to VARCHAR(500) NOT NULL,
  takes VARCHAR(40) NOT NULL,
  state VARCHAR(12) NOT NULL,
  kept_as VARCHAR(60) REFERENCES kept_method (id),
  -- a card that waits for its bank's code
  waits_for VARCHAR(30),
  waits_expiry VARCHAR(5)
);
