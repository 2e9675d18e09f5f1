-- Who owes a debt stands on it, as long as anything of it is open: all sums of what is open are read from one index.
ALTER TABLE debt ADD COLUMN client_id BIGINT;
UPDATE debt SET client_id = (SELECT v.client_id FROM invoice v WHERE v.id = debt.invoice_id);
ALTER TABLE debt ALTER COLUMN client_id SET NOT NULL;
ALTER TABLE debt ADD COLUMN owed_by BIGINT
  GENERATED ALWAYS AS (CASE WHEN amount_minor > settled_minor + credited_minor THEN client_id END);
CREATE INDEX debt_owed ON debt (owed_by, currency, due_on, open_minor);
-- All balances, in the own currency and in the others, from one index.
DROP INDEX posting_sums;
CREATE INDEX posting_sums ON posting (account, detail, currency, amount_minor, own_minor);
