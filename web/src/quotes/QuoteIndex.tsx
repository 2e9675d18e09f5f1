import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { quotesOf } from '../api/quotes';
import { money, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { useAddressView } from '../design/useAddressView';
import { useTurning } from '../design/useTurning';
import { useTyped } from '../design/useTyped';

const names: Record<string, string> = {
  open: 'Waiting for an answer',
  draft: 'Not issued yet',
  accepted: 'Accepted',
  expired: 'Run out',
  declined: 'Declined',
  void: 'Replaced or withdrawn',
};

function Row({
  row,
  when,
  current,
  filter,
}: {
  row: Schemas['QuoteRow'];
  when: string;
  current: number | null;
  filter: string;
}) {
  return (
    <Link
      className="row"
      to={{ pathname: `/quotes/${row.id}`, search: filter ? `?filter=${encodeURIComponent(filter)}` : '' }}
      aria-current={row.id === current ? 'true' : undefined}
      data-row
    >
      <span className="who">{row.clientName || 'No client yet'}</span>
      <span className="open money">{row.total ? money(row.total) : ''}</span>
      <span className="what">
        {[
          row.number ?? 'draft',
          row.subject,
          row.validUntil && when === 'open' ? `until ${shortDate(row.validUntil)}` : '',
          row.validUntil && when === 'expired' ? `ran out ${shortDate(row.validUntil)}` : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
    </Link>
  );
}

/** The index leaf: quotes by how they stand, those that run out first on top. */
export function QuoteIndex({ current }: { current: number | null }) {
  const { get, change } = useAddressView();
  const filter = get('filter');
  const typed = useTyped(filter, (text) => change('filter', text));
  const { leaf, turn } = useTurning(current);
  const groups = useQuery(quotesOf(filter));

  return (
    <div className="index" ref={leaf} onKeyDown={turn}>
      <div className="filter">
        <input
          type="search"
          aria-label="Filter quotes"
          placeholder="Filter: name, number, what for…"
          {...typed}
        />
      </div>
      <Loaded query={groups} what="the quotes">
        {(all) =>
          all.length === 0 ? (
            <p className="empty">
              {filter ? (
                'No quote fits this filter.'
              ) : (
                <>
                  Quotes will stand here until they are answered.{' '}
                  <Link className="link" to="/quotes/new">
                    Write the first one
                  </Link>
                </>
              )}
            </p>
          ) : (
            <>
              {all.map((g) => (
                <section key={g.when} aria-label={names[g.when]}>
                  <h2>{names[g.when]}</h2>
                  {g.rows.map((r) => (
                    <Row key={r.id} row={r} when={g.when} current={current} filter={filter} />
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
