import type { Schemas } from '../api/client';

export type Slip = Schemas['Slip'];
export type Look = Schemas['ShownLetter'];
export type Channel = NonNullable<Slip['channel']>;

/** As the letter is, to whom it is for. */
export const plainSlip: Slip = {
  to: null,
  subject: null,
  line: null,
  copies: null,
  bare: false,
  copy: false,
  seen: null,
  channel: null,
  at: null,
  keep: false,
};
