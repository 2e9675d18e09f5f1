import { useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { isZero, money } from '../design/format';
import { Coming } from './Coming';
import { CardPageNote, OnTrial, OtherWays } from './OtherWays';
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
  const taken = a.by !== '' && !a.test;
  if (a.coming)
    return (
      <section aria-label="To pay now">
        <Coming amount={a.coming.amount} on={a.coming.until} held={a.coming.held} />
      </section>
    );
  return (
    <section aria-label="To pay now">
      <h2>{a.what === 'the deposit' ? 'The deposit, to pay now' : 'To pay now'}</h2>
      {!a.deposit && <p>It is asked for: {a.what}.</p>}
      {!isZero(a.came) && (
        <p>
          {money(a.came)} has come; <b>{money(a.missing)}</b> of what was asked for is still to be paid.
        </p>
      )}
      {a.test && <OnTrial />}
      {a.by && (
        <>
          <Payer payer={payer} onChange={setPayer} />
          <button type="button" className="pay" disabled={going} onClick={() => void pay()}>
            {a.test ? 'Try paying' : a.hold ? 'Let' : 'Pay'} {money(a.missing)}{' '}
            {a.hold && !a.test && 'be held '}
            {a.by}
          </button>
          <CardPageNote from={d.from} wallets={a.wallets} hold={a.hold} />
        </>
      )}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
      <OtherWays
        from={d.from}
        iban={a.iban}
        reference={a.reference}
        otherwise={a.otherwise}
        taken={taken}
        amount={money(a.missing)}
      />
    </section>
  );
}
