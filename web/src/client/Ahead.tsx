import { useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { isZero, money } from '../design/format';
import { Payer, type PayerNames, nobody } from './Payer';

/** What is asked for on an accepted quote before its invoice: paid whole, by whatever way there is. */
export function Ahead({
  page: p,
  ahead: a,
  token,
  onStale,
}: {
  page: Schemas['QuotePage'];
  ahead: NonNullable<Schemas['QuotePage']['ahead']>;
  token: string;
  onStale: () => void;
}) {
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState('');
  const [payer, setPayer] = useState<PayerNames>(nobody);
  const d = p.document;
  const pay = async () => {
    setGoing(true);
    setRefusal('');
    try {
      const answer = await data(
        api.POST('/api/public/{token}/quote/orders', {
          params: { path: { token } },
          body: { amount: a.missing.amount, payerName: payer.name, payerEmail: payer.email },
        }),
      );
      window.location.assign(answer.address);
    } catch (error) {
      setRefusal(messageOf(error));
      setGoing(false);
      if (error instanceof ApiError && error.status === 409) onStale();
    }
  };
  if (isZero(a.missing))
    return isZero(a.came) ? null : (
      <p className="told" role="status">
        {money(a.came)} was paid ahead. Thank you; the invoice for the work deducts it.
      </p>
    );
  const taken = a.card && !a.test;
  return (
    <section aria-label="To pay now">
      <h2>{a.whole ? 'To pay now' : 'The deposit, to pay now'}</h2>
      {!isZero(a.came) && (
        <p>
          {money(a.came)} has come; <b>{money(a.missing)}</b> of what was asked for is still to be paid.
        </p>
      )}
      {a.test && (
        <p className="told" role="status">
          Payment by card is only being tested: nothing is taken, and nothing is settled.
        </p>
      )}
      {a.card && (
        <>
          <Payer payer={payer} onChange={setPayer} />
          <button type="button" className="pay" disabled={going} onClick={() => void pay()}>
            {a.test ? 'Try paying' : 'Pay'} {money(a.missing)} by card
          </button>
          <p className="faded small">
            The card page belongs to the card company; {d.from.name} never sees the number.
          </p>
        </>
      )}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
      {a.iban && (
        <>
          <h2>{taken ? 'Or by bank transfer' : 'By bank transfer'}</h2>
          <dl>
            <div>
              <dt>Amount</dt>
              <dd>{money(a.missing)}</dd>
            </div>
            <div>
              <dt>To</dt>
              <dd>{d.from.name}</dd>
            </div>
            <div>
              <dt>IBAN</dt>
              <dd>{a.iban}</dd>
            </div>
            <div>
              <dt>Reference</dt>
              <dd>{a.reference}</dd>
            </div>
          </dl>
        </>
      )}
      {a.otherwise.length > 0 && (
        <p>
          {taken || a.iban ? 'You can also pay ' : 'You can pay '}
          {a.otherwise.join(', or ')}.
        </p>
      )}
      {!taken && !a.iban && a.otherwise.length === 0 && (
        <p className="told">
          To pay, please ask {d.from.name}: {d.from.email}.
        </p>
      )}
    </section>
  );
}
