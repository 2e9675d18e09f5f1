-- A check with a list of constants belongs to the session that made the table: states are plain text, read by the code.
ALTER TABLE card_order ADD COLUMN standing VARCHAR(12);
UPDATE card_order SET standing = state;
ALTER TABLE card_order DROP COLUMN state;
ALTER TABLE card_order ALTER COLUMN standing RENAME TO state;
ALTER TABLE card_order ALTER COLUMN state SET NOT NULL;
DROP INDEX event_due;
ALTER TABLE event ADD COLUMN standing VARCHAR(12);
UPDATE event SET standing = state;
ALTER TABLE event DROP COLUMN state;
ALTER TABLE event ALTER COLUMN standing RENAME TO state;
ALTER TABLE event ALTER COLUMN state SET NOT NULL;
CREATE INDEX event_due ON event (state, due_at);
