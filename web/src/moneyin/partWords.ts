import type { Schemas } from '../api/client';
import { money } from '../design/format';
import { standingOf } from '../design/Measure';

/** An installment or a late fee with what is open of it, in a choice. */
export const partWords = (p: Schemas['Part']) =>
  `${
    p.kind === 'LATE_FEE' ? 'Late fee' : p.kind === 'DEPOSIT' ? 'Deposit' : `Installment ${p.position}`
  }, ${standingOf(p)}: ${money(p.open)}`;
