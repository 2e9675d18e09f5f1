import type { Schemas } from '../api/client';

type Way = Schemas['Payment']['means']['way'];

/** The ways of money that the business notes itself; the others come from a processor. */
const NAMES = {
  TRANSFER: 'Bank transfer',
  CASH: 'Cash',
  CHEQUE: 'Cheque',
} satisfies Partial<Record<Way, string>>;

export const BY_HAND = Object.entries(NAMES).map(([value, label]) => ({ value, label }));
