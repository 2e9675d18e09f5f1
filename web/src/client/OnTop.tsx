import { useEffect, useState } from 'react';
import { api, ApiError, data, type Schemas } from '../api/client';
import { isZero, money } from '../design/format';

export type Top = Schemas['OnTopView'];
export type Way = '' | 'CARD' | 'BANK_DEBIT';

/** What is on top of a sum, as the server reckons it. @param tip as typed; empty for none */
export function useOnTop(
  token: string | null,
  sum: { amount: string; currency: string },
  way: Way,
  tip: string,
) {
  const [top, setTop] = useState<Top | null>(null);
  // Of which sum and choice it is: what is shown for a moment longer is of the one before.
  const [of, setOf] = useState('');
  const [wrong, setWrong] = useState<string>();
  const { amount, currency } = sum;
  const now = `${amount} ${currency} ${way} ${tip}`;
  useEffect(() => {
    if (!token || !amount) return;
    let here = true;
    // What is typed is asked about once it rests.
    const later = window.setTimeout(() => {
      data(
        api.GET('/api/public/{token}/on-top', {
          params: { path: { token }, query: { amount, currency, way, tip } },
        }),
      ).then(
        (answer) => {
          if (!here) return;
          setTop(answer);
          setOf(now);
          setWrong(undefined);
        },
        (error: unknown) => {
          if (here) setWrong(error instanceof ApiError ? error.of('tip') : undefined);
        },
      );
    }, 120);
    return () => {
      here = false;
      window.clearTimeout(later);
    };
  }, [token, amount, currency, way, tip, now]);
  const fresh = of === now ? top : null;
  return {
    top,
    wrong,
    /** With all that is on top; null where nothing is, or where it is not known yet. */
    whole: fresh && !(isZero(fresh.charged) && isZero(fresh.tip)) ? fresh.total : null,
    /** Whether something may be on top that is not known yet. */
    waits: !fresh && ((top?.charges ?? false) || tip !== ''),
  };
}

/** Which tip is given: none, one of those offered, or one's own. */
export function TipChoice({
  top,
  tip,
  wrong,
  onTip,
}: {
  top: Top;
  tip: string;
  wrong: string | undefined;
  onTip: (tip: string) => void;
}) {
  const [own, setOwn] = useState(false);
  if (!top.tips) return null;
  return (
    <fieldset aria-label="A tip">
      <label className="choice">
        <input
          type="radio"
          name="tip"
          checked={!own && tip === ''}
          onChange={() => {
            setOwn(false);
            onTip('');
          }}
        />
        No tip
      </label>
      {top.offered.map((o) => (
        <label key={o.words} className="choice">
          <input
            type="radio"
            name="tip"
            checked={!own && tip === o.amount.amount}
            onChange={() => {
              setOwn(false);
              onTip(o.amount.amount);
            }}
          />
          {o.words.endsWith('%') ? `A tip of ${o.words}` : 'A tip'}
          <b>{money(o.amount)}</b>
        </label>
      ))}
      {top.free && (
        <label className="choice">
          <input
            type="radio"
            name="tip"
            checked={own}
            onChange={() => {
              setOwn(true);
              onTip('');
            }}
          />
          Another tip
          {own && (
            <input
              type="text"
              className="amount"
              inputMode="decimal"
              aria-label="Another tip"
              aria-invalid={wrong ? true : undefined}
              autoFocus
              value={tip}
              onChange={(e) => onTip(e.target.value)}
            />
          )}
        </label>
      )}
      {wrong && (
        <p className="told refused" role="alert">
          The tip {wrong}.
        </p>
      )}
    </fieldset>
  );
}

/** Whether a payer can choose between a bank debit and a card. @param by the ways of the pay page, in words */
export const both = (by: string) => by.includes('bank debit') && by !== 'by bank debit';

/** By card, which costs something, or by bank debit, which does not. */
export function ByWhich({ way, onWay }: { way: Way; onWay: (way: Way) => void }) {
  return (
    <fieldset aria-label="By which way">
      <label className="choice">
        <input type="radio" name="way" checked={way === 'CARD'} onChange={() => onWay('CARD')} />
        By card
      </label>
      <label className="choice">
        <input type="radio" name="way" checked={way === 'BANK_DEBIT'} onChange={() => onWay('BANK_DEBIT')} />
        By bank debit, with nothing on top
      </label>
    </fieldset>
  );
}

/** What it comes to with all that is on top. */
export function Together({ top, sum }: { top: Top; sum: Schemas['Amount'] }) {
  if (isZero(top.charged) && isZero(top.tip)) return null;
  return (
    <dl aria-label="What it comes to" role="group">
      <div>
        <dt>What is paid</dt>
        <dd>{money(sum)}</dd>
      </div>
      {!isZero(top.charged) && (
        <div>
          <dt>
            For paying by card
            {!isZero(top.tax) && (
              <span className="under small faded">
                {money(top.tax)} of {top.taxName} in it
              </span>
            )}
          </dt>
          <dd>{money(top.charged)}</dd>
        </div>
      )}
      {!isZero(top.tip) && (
        <div>
          <dt>Tip</dt>
          <dd>{money(top.tip)}</dd>
        </div>
      )}
      <div className="total">
        <dt>Together</dt>
        <dd>{money(top.total)}</dd>
      </div>
    </dl>
  );
}
