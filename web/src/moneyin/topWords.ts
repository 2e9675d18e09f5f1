import type { Schemas } from '../api/client';
import { isZero, money } from '../design/format';

/** What came beside a payment, in a few words. */
export const topWords = (extra: Schemas['Extra']) =>
  [
    !isZero(extra.tip) && `${money(extra.tip)} as a tip`,
    !isZero(extra.surcharge) &&
      `${money(extra.surcharge)} for paying by card` +
        (isZero(extra.tax) ? '' : `, and ${money(extra.tax)} of tax on that`),
  ]
    .filter(Boolean)
    .join('; ');
