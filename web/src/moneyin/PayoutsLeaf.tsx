import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { Schemas } from '../api/client';
import { payoutOf, payouts } from '../api/moneyin';
import { isZero, longDate, money, plain, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { MoneyIndex } from './MoneyIndex';
import css from './MoneyIn.module.css';

type Payout = Schemas['Payout'];

function Parts({ payout: p }: { payout: Payout }) {
  return (
    <table className={css.lines}>
      <thead>
        <tr>
          <th>On</th>
          <th>What</th>
          <th className={`${css.n} ${css.wide}`}>Amount</th>
          <th className={`${css.n} ${css.wide}`}>Kept by the processor</th>
          <th className={css.n}>Yours</th>
        </tr>
      </thead>
      <tbody>
        {p.parts.map((x, i) => (
          <tr key={i}>
            <td className={css.day}>{shortDate(x.on)}</td>
            <td>
              {x.paymentId ? <Link to={`/money-in/payment-${x.paymentId}`}>{x.words}</Link> : x.words}
              {x.who && `, ${x.who}`}
              {x.why && <span className="faded"> · {x.why}</span>}
            </td>
            <td className={`${css.n} ${css.wide}`}>{plain(x.amount)}</td>
            <td className={`${css.n} ${css.wide}`}>{isZero(x.cost) ? '' : plain(x.cost)}</td>
            <td className={css.n}>{plain(x.net)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <th colSpan={2}>
            {p.count === 1 ? '1 part' : `${p.count} parts`}
            {p.count > p.parts.length && `, of which the first ${p.parts.length} stand here`}
          </th>
          <td className={`${css.n} ${css.wide}`}>{plain(p.moved)}</td>
          <td className={`${css.n} ${css.wide}`}>{plain(p.cost)}</td>
          <td className={css.n}>{money(p.net)}</td>
        </tr>
      </tfoot>
    </table>
  );
}

/** What the card processor holds, and what it has paid out. */
export function PayoutsLeaf() {
  const all = useQuery(payouts);
  return (
    <div className={css.leaf}>
      <div className={css.inner}>
        <h1>Payouts</h1>
        <p className="faded">
          The card processor pays out each working day what is ready, less its fees and what went back; what
          comes to less than nothing is carried forward.
        </p>
        <Loaded query={all} what="the payouts">
          {({ held, past }) => (
            <>
              {held.length === 0 && past.length === 0 && (
                <p className="empty">Nothing was paid by card or bank debit yet.</p>
              )}
              {held.map((h) => (
                <section key={h.net.currency} aria-label={`To come in ${h.net.currency}`}>
                  <h2>
                    To come: {money(h.net)}
                    {h.net.amount.startsWith('-') && <span className="late"> · carried forward</span>}
                  </h2>
                  <Parts payout={h} />
                </section>
              ))}
              {past.length > 0 && (
                <>
                  <h2>Paid out</h2>
                  <table className={css.lines} aria-label="Payouts">
                    <tbody>
                      {past.map((p) => (
                        <tr key={p.id}>
                          <td>
                            <Link to={`/money-in/payouts/${p.id}`}>{longDate(p.on ?? '')}</Link>
                          </td>
                          <td className="faded">{p.count === 1 ? '1 part' : `${p.count} parts`}</td>
                          <td className={css.n}>{money(p.net)}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </>
              )}
            </>
          )}
        </Loaded>
      </div>
    </div>
  );
}

function One({ id }: { id: number }) {
  const payout = useQuery(payoutOf(id));
  return (
    <Loaded query={payout} what="the payout">
      {(p) => (
        <div className={css.leaf}>
          <div className={css.inner}>
            <Link className="link" to="/money-in/payouts">
              All payouts
            </Link>
            <h1>
              Payout of {money(p.net)}, {longDate(p.on ?? '')}
            </h1>
            <p className="faded">What it is made of:</p>
            <Parts payout={p} />
          </div>
        </div>
      )}
    </Loaded>
  );
}

/** The place of payouts, or one of them. */
export function PayoutsPage() {
  const { id } = useParams();
  useTitle('Payouts');
  const narrow = useOneLeaf();
  const one = id && /^\d+$/.test(id) ? Number(id) : null;
  return (
    <div className="spread has-record">
      <MoneyIndex current={null} />
      <div className="record">
        <div style={{ overflow: 'auto', minHeight: 0 }}>
          {narrow && !one && (
            <p style={{ padding: '16px 18px 0', margin: 0 }}>
              <Link className="link" to="/money-in">
                All that comes in
              </Link>
            </p>
          )}
          {one ? <One id={one} /> : <PayoutsLeaf />}
        </div>
      </div>
    </div>
  );
}
