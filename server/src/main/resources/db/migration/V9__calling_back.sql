-- A letter that a person called back before it left; its key is free again for another.
ALTER TABLE message ADD COLUMN called_back BOOLEAN DEFAULT FALSE NOT NULL;
-- The act that was kept back before a person sent it all the same: kept back again when it is called back.
ALTER TABLE message ADD COLUMN kept_back_act VARCHAR(120);
-- A reminder that was kept back on its day: the day, and the steps that it used up, as debt:days with blanks between.
ALTER TABLE kept_back_act ADD COLUMN passed_on DATE;
ALTER TABLE kept_back_act ADD COLUMN steps VARCHAR(4000);
-- What the business types between the whole and the decimals.
ALTER TABLE business ADD COLUMN decimal_mark VARCHAR(1) DEFAULT '.' NOT NULL;
