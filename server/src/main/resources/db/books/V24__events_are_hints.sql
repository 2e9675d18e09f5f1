-- Which events of a processor were heard is remembered while it runs: each is a hint to read on, and one that comes again finds the
-- same books. Written down, each cost a commit of its own, and the table only grew.
DROP TABLE hook_seen;
