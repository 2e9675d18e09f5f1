import { useCallback, useEffect, useState } from 'react';
import { api, data, messageOf, type Schemas } from '../api/client';
import { longDate, money } from '../design/format';

type Back = Schemas['LinkBack'];

/** How long whoever paid sees that it is paid before they go on. */
const ONWARD_AFTER = 2500;

/** What whoever is back from paying is told: the truth as the processor says it now. */
export function LinkCame({
  page: p,
  token,
  payer,
}: {
  page: Schemas['LinkPage'];
  token: string;
  payer: string;
}) {
  const [back, setBack] = useState<Back | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  const ask = useCallback(() => {
    setFailed(null);
    data(
      api.POST('/api/public/{token}/link/payments/{payer}/back', { params: { path: { token, payer } } }),
    ).then(setBack, setFailed);
  }, [token, payer]);
  useEffect(() => ask(), [ask]);
  const onward = back?.came === 'PAID' ? back.onward : '';
  const done = back !== null && back.came !== 'NOT_PAID' && back.came !== 'UNKNOWN';
  useEffect(() => {
    if (done) window.sessionStorage.removeItem(`filled-${token}`);
  }, [done, token]);
  useEffect(() => {
    if (!onward) return;
    const timer = window.setTimeout(() => window.location.assign(onward), ONWARD_AFTER);
    return () => window.clearTimeout(timer);
  }, [onward]);
  if (failed)
    return (
      <p className="told refused" role="alert">
        {messageOf(failed)}
      </p>
    );
  if (!back) return <p className="faded">One moment: the card company is asked…</p>;
  const again = (
    <p>
      <a href={`/p/${token}`}>Go back and pay</a>
    </p>
  );
  switch (back.came) {
    case 'PAID':
      return (
        <>
          <p className="told" role="status">
            <b>{money(back.amount)} is paid.</b>
            {back.email && ` The receipt goes to ${back.email}.`}
          </p>
          {back.thanks && <p className="text">{back.thanks}</p>}
          {onward && (
            <p>
              You go on to <a href={onward}>{back.place}</a>.
            </p>
          )}
        </>
      );
    case 'TRIED':
      return (
        <p className="told" role="status">
          It was only tried: nothing was taken, and nothing is paid.
        </p>
      );
    case 'ON_ITS_WAY':
      return (
        <p className="told" role="status">
          The bank debit of <b>{money(back.amount)}</b> is on its way. It is certain on{' '}
          {longDate(back.until ?? '')}
          {back.email && `; then the receipt goes to ${back.email}`}.
        </p>
      );
    case 'HELD':
      return (
        <p className="told" role="status">
          <b>{money(back.amount)}</b> is held on your card until {longDate(back.until ?? '')}. Nothing is
          taken yet.
        </p>
      );
    case 'UNKNOWN':
      return (
        <>
          <p className="told" role="status">
            The card company does not say yet what came of it.{' '}
            {back.email && `If it was paid, the receipt goes to ${back.email}. `}
            Do not pay twice.
          </p>
          <button type="button" className="pay" onClick={ask}>
            Ask again
          </button>
        </>
      );
    default:
      return (
        <>
          <p className="told refused" role="alert">
            {back.declined
              ? `The card was declined: ${back.declined}. Nothing was taken.`
              : 'Nothing was paid. Nothing was taken.'}
          </p>
          {p.state === 'OPEN' && again}
        </>
      );
  }
}
