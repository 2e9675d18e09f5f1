-- Late fees that bear tax. The invoice's sets of taxes are fixed with its policy; null where its fees bear none.
ALTER TABLE fixed_late_fee ADD tax CLOB;
-- What the policy came to, without tax that was added; the cap counts it.
ALTER TABLE late_fee ADD fee_minor BIGINT;
UPDATE late_fee SET fee_minor = amount_minor;
ALTER TABLE late_fee ALTER COLUMN fee_minor SET NOT NULL;
ALTER TABLE late_fee ADD CONSTRAINT late_fee_within CHECK (fee_minor BETWEEN 0 AND amount_minor);
-- Printed beside a debt: the tax in a late fee.
ALTER TABLE debt ADD note VARCHAR(300) DEFAULT '' NOT NULL;
