import type { Schemas } from '../api/client';
import { longDate } from '../design/format';

/** What is said beside paying by card: that it is on trial, and the ways that need no card. */
export function OnTrial() {
  return (
    <p className="told" role="status">
      Payment by card is only being tested: nothing is taken, and nothing is settled.
    </p>
  );
}

export function CardPageNote({
  from,
  certainOn = null,
  wallets = [],
  hold = false,
}: {
  from: { name: string };
  /** When a bank debit that is begun today is certain; null where none is taken. */
  certainOn?: string | null;
  /** Those that the pay page shows where a device has them, by their names. */
  wallets?: string[];
  /** Whether a card's money is only held. */
  hold?: boolean;
}) {
  return (
    <p className="faded small">
      {hold &&
        `It is only held on your card: ${from.name} takes it, or less of it, within seven days, or it is let go. `}
      The pay page belongs to the card company; {from.name} never sees the number.
      {wallets.length > 0 && ` ${wallets.join(' and ')} can be used there on a device that has it.`}
      {certainOn && ` A bank debit that you begin today is certain on ${longDate(certainOn)}.`}
    </p>
  );
}

/** By transfer, and by whatever else the business takes; whom to ask where there is no way at all. */
export function OtherWays({
  from,
  iban,
  reference,
  otherwise,
  taken,
  amount,
}: {
  from: Schemas['Party'];
  iban: string | null;
  reference: string | null;
  otherwise: string[];
  /** Whether cards are taken in earnest. */
  taken: boolean;
  /** Of the transfer, where only one is asked for. */
  amount?: string;
}) {
  return (
    <>
      {iban && (
        <>
          <h2>{taken ? 'Or by bank transfer' : 'By bank transfer'}</h2>
          <dl>
            {amount && (
              <div>
                <dt>Amount</dt>
                <dd>{amount}</dd>
              </div>
            )}
            <div>
              <dt>To</dt>
              <dd>{from.name}</dd>
            </div>
            <div>
              <dt>IBAN</dt>
              <dd>{iban}</dd>
            </div>
            <div>
              <dt>Reference</dt>
              <dd>{reference}</dd>
            </div>
          </dl>
        </>
      )}
      {otherwise.length > 0 && (
        <p>
          {taken || iban ? 'You can also pay ' : 'You can pay '}
          {otherwise.join(', or ')}.
        </p>
      )}
      {!taken && !iban && otherwise.length === 0 && (
        <p className="told">
          To pay, please ask {from.name}: {from.email}.
        </p>
      )}
    </>
  );
}
