import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { isNegative, isZero, magnitude, money } from '../design/format';
import css from './Quotes.module.css';

/** The documents that bill an accepted quote, and what of it is left. */
export function LedTo({ leadsTo: l }: { leadsTo: Schemas['LeadsTo'] }) {
  const { invoices, left, missing } = l;
  if (invoices.length === 0 && (!missing || isZero(missing))) return null;
  return (
    <>
      {missing && !isZero(missing) && (
        <p className="soon">{money(missing)} is asked for and has not come yet.</p>
      )}
      {invoices.length > 0 && (
        <>
          <h2>Invoiced</h2>
          <ul className={css.list}>
            {invoices.map((i) => (
              <li key={i.id}>
                <Link className="link" to={`/invoices/${i.id}`}>
                  {i.title} {i.number ?? '(draft)'}
                </Link>
                {i.total && `: ${money(i.total)}`}
                {i.state === 'void' && ', void'}
                {i.deductedBy && ', deducted by the final invoice'}
              </li>
            ))}
          </ul>
          {left && (
            <p className={isZero(left) ? 'got' : 'faded'}>
              {isZero(left)
                ? 'All of it is invoiced.'
                : isNegative(left)
                  ? `${money(magnitude(left))} more is invoiced than was accepted.`
                  : `${money(left)} is left to invoice, deposits counted.`}
            </p>
          )}
        </>
      )}
    </>
  );
}
