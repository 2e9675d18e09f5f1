import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { moneyIn } from '../api/moneyin';
import { money } from '../design/format';
import { Loaded } from '../design/States';
import { useAddressView } from '../design/useAddressView';
import { useTurning } from '../design/useTurning';
import { useTyped } from '../design/useTyped';
import css from './MoneyIn.module.css';

const bad = ['CONTESTED', 'WENT_BACK', 'DECLINED'];

function Row({ row, current, filter }: { row: Schemas['MoneyRow']; current: string | null; filter: string }) {
  const faded = ['WENT_BACK', 'DECLINED', 'GIVEN_UP'].includes(row.state);
  return (
    <Link
      className="row"
      to={{
        pathname: `/money-in/${row.key}`,
        search: filter ? `?filter=${encodeURIComponent(filter)}` : '',
      }}
      aria-current={row.key === current ? 'true' : undefined}
      data-row
    >
      <span className="who">{row.clientName}</span>
      <span
        className={`open money ${faded ? css.faded : row.state === 'CONTESTED' ? 'late' : ''}`}
        data-state={row.state}
      >
        {money(row.amount)}
      </span>
      <span className="what">{row.words}</span>
    </Link>
  );
}

/** The index leaf: what is contested first, then what is on its way, then what is there. */
export function MoneyIndex({ current }: { current: string | null }) {
  const { get, change } = useAddressView();
  const filter = get('filter');
  const typed = useTyped(filter, (text) => change('filter', text));
  const { leaf, turn } = useTurning(current);
  const groups = useQuery(moneyIn(filter));
  return (
    <div className="index" ref={leaf} onKeyDown={turn}>
      <div className="filter">
        <input
          type="search"
          aria-label="Filter what comes in"
          placeholder="Filter: who, how much, how…"
          {...typed}
        />
      </div>
      <nav className={css.places} aria-label="More of Money in">
        <Link className="link" to="/money-in/payouts">
          Payouts
        </Link>
        <Link className="link" to="/money-in/links">
          Payment links
        </Link>
        <Link className="link" to="/money-in/list">
          All payments, as a list
        </Link>
      </nav>
      <Loaded query={groups} what="what comes in">
        {(all) =>
          all.length === 0 ? (
            <p className="empty">
              {filter
                ? 'Nothing that came in fits this filter.'
                : 'What clients pay stands here: by card and bank debit by itself, else as you record it on an invoice.'}
            </p>
          ) : (
            <>
              {all.map((g) => (
                <section key={g.state} aria-label={g.title}>
                  <h2 className={bad.includes(g.state) ? 'late' : undefined}>
                    {g.title}
                    <span className="money">{g.sums.map(money).join(', ')}</span>
                  </h2>
                  {g.rows.map((r) => (
                    <Row key={r.key} row={r} current={current} filter={filter} />
                  ))}
                </section>
              ))}
            </>
          )
        }
      </Loaded>
    </div>
  );
}
