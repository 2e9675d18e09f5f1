import type { Schemas } from '../api/client';
import { longDate, money } from '../design/format';

/** A bank debit that is on its way, or what is held on a card: nothing more is to be done for it. */
export function Coming({ amount, on, held }: { amount: Schemas['Amount']; on: string; held: boolean }) {
  return (
    <p className="told" role="status">
      {held
        ? `${money(amount)} is held on a card until ${longDate(on)}. Nothing is taken before the work is done.`
        : `${money(amount)} is on its way by bank debit. It is certain on ${longDate(on)}; nothing more is to be done for it.`}
    </p>
  );
}
