-- Rows that a run adds by the hundred: their ids are taken two hundred at a time, since each part of them that is taken
-- is written to the disk by itself. After a kill the rest of a part is never used; so entries of the journal, whose
-- numbers a bookkeeper reads, are left as they are.
ALTER TABLE run_act ALTER COLUMN id SET CACHE 200;
ALTER TABLE debt ALTER COLUMN id SET CACHE 200;
ALTER TABLE late_fee ALTER COLUMN id SET CACHE 200;
ALTER TABLE message ALTER COLUMN id SET CACHE 200;
ALTER TABLE happening ALTER COLUMN id SET CACHE 200;
ALTER TABLE find_stale ALTER COLUMN id SET CACHE 200;
ALTER TABLE find_entry ALTER COLUMN id SET CACHE 200;
ALTER TABLE find_word ALTER COLUMN id SET CACHE 200;
ALTER TABLE posting ALTER COLUMN id SET CACHE 200;
ALTER TABLE settlement ALTER COLUMN id SET CACHE 200;
