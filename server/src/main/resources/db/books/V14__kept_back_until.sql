-- The last day on which everything is kept back; a day that never comes where only a person ends it.
ALTER TABLE reminder_plan ADD COLUMN all_kept_until DATE;
UPDATE reminder_plan SET all_kept_until = DATE '9999-12-31' WHERE all_kept_back;
ALTER TABLE reminder_plan DROP COLUMN all_kept_back;
