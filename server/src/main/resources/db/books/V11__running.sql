-- What the application keeps of itself.

-- Written and read every ten seconds, so that health can say whether the books take anything.
CREATE TABLE probe (
  id INT PRIMARY KEY,
  beat BIGINT NOT NULL
);

-- How far the demo's clock is ahead.
CREATE TABLE moved_clock (
  id INT PRIMARY KEY CHECK (id = 1),
  ahead_seconds BIGINT NOT NULL
);
