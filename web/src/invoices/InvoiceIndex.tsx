import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { type Schemas } from '../api/client';
import { MeasureBar } from '../design/Measure';
import { isZero, money, plain } from '../design/format';
import { Loaded } from '../design/States';
import { useAddressView } from '../design/useAddressView';
import { useTurning } from '../design/useTurning';
import { useTyped } from '../design/useTyped';
import { FromFile } from './FromFile';
import { groupOf, groupsOf } from '../api/invoices';

const names: Record<string, string> = {
  late: 'Late',
  week: 'This week',
  draft: 'Not issued yet',
  later: 'Later',
  undated: 'No date yet',
  settled: 'Settled',
};

function Row({
  row,
  own,
  current,
  filter,
}: {
  row: Schemas['Row'];
  own: string;
  current: number | null;
  filter: string;
}) {
  const open = row.open;
  return (
    <Link
      className="row"
      to={{ pathname: `/invoices/${row.id}`, search: filter ? `?filter=${encodeURIComponent(filter)}` : '' }}
      aria-current={row.id === current ? 'true' : undefined}
      data-row
    >
      <span className="who">{row.clientName || 'No client yet'}</span>
      <span className={`open money ${row.late ? 'late' : ''}`}>
        {open ? (open.currency === own ? plain(open) : money(open)) : ''}
      </span>
      <span className="what">
        {row.number ?? 'draft'}
        {row.subject ? ` · ${row.subject}` : ''}
        {row.voided ? ' · void' : ''}
        {row.number && !row.voided && open && isZero(open) && row.total ? ` · ${money(row.total)}` : ''}
      </span>
      {row.measure.length > 0 && (
        <span className="measure">
          <MeasureBar parts={row.measure} />
        </span>
      )}
    </Link>
  );
}

/** Invoices of one time: the first page, and further ones as somebody asks for them. */
function Group({
  group: g,
  current,
  filter,
}: {
  group: Schemas['Group'];
  current: number | null;
  filter: string;
}) {
  const more = useInfiniteQuery(groupOf(g.when, filter, g.more));
  const rows = [...g.rows, ...(more.data?.pages.flatMap((p) => p.rows) ?? [])];
  const hasMore = more.data ? more.hasNextPage : Boolean(g.more);
  return (
    <section aria-label={names[g.when]}>
      <h2>
        {names[g.when]}
        {g.when !== 'settled' && (
          <span className={`money ${g.when === 'late' ? 'late' : ''}`}>
            {[g.sum, ...g.inOthers].map((sum) => money(sum)).join(' + ')}
          </span>
        )}
      </h2>
      {rows.map((r) => (
        <Row key={r.id} row={r} own={g.sum.currency} current={current} filter={filter} />
      ))}
      {hasMore && (
        <p className="empty">
          <button
            type="button"
            className="link"
            disabled={more.isFetching}
            onClick={() => void (more.data ? more.fetchNextPage() : more.refetch())}
          >
            {g.when === 'settled' ? 'Show earlier ones' : `Show further ones, of ${g.count} in all`}
          </button>
        </p>
      )}
    </section>
  );
}

/** The index leaf: invoices by when, filtered as one types; the address holds the filter. */
export function InvoiceIndex({ current }: { current: number | null }) {
  const { get, change } = useAddressView();
  const filter = get('filter');
  const typed = useTyped(filter, (text) => change('filter', text));
  const { leaf, turn } = useTurning(current);
  const groups = useQuery(groupsOf(filter));

  return (
    <div className="index" ref={leaf} onKeyDown={turn}>
      <div className="filter">
        <input
          type="search"
          aria-label="Filter invoices"
          placeholder="Filter: name, number, what for…"
          {...typed}
        />
      </div>
      <Loaded query={groups} what="the invoices">
        {(all) =>
          all.length === 0 ? (
            <p className="empty">
              {filter ? 'No invoice fits this filter.' : 'Invoices will stand here, by when they fall due.'}
            </p>
          ) : (
            <>
              {all.map((g) => (
                <Group key={g.when} group={g} current={current} filter={filter} />
              ))}
            </>
          )
        }
      </Loaded>
      <p className="empty small">
        <Link
          className="link"
          to={{ pathname: '/invoices/list', search: filter ? `?filter=${encodeURIComponent(filter)}` : '' }}
        >
          As a list, to order, add up and do several at once
        </Link>
      </p>
      <FromFile />
    </div>
  );
}
