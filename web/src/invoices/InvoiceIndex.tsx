import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { MeasureBar } from '../design/Measure';
import { isZero, money, plain } from '../design/format';
import { Loaded } from '../design/States';
import { FromFile } from './FromFile';

const names: Record<string, string> = {
  late: 'Late',
  week: 'This week',
  draft: 'Not issued yet',
  later: 'Later',
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

/** The index leaf: invoices by when, filtered as one types; the address holds the filter. */
export function InvoiceIndex({ current }: { current: number | null }) {
  const [search, setSearch] = useSearchParams();
  // Typed here at once; the address follows, which takes a moment longer than the next key.
  const [filter, setFilter] = useState(search.get('filter') ?? '');
  const navigate = useNavigate();
  const leaf = useRef<HTMLDivElement>(null);
  const groups = useQuery({
    queryKey: ['invoices', filter],
    queryFn: () => data(api.GET('/api/invoices', { params: { query: { filter } } })),
    placeholderData: (before) => before,
  });
  const firstMore = groups.data?.find((g) => g.when === 'settled')?.more;
  const more = useInfiniteQuery({
    queryKey: ['invoices', 'settled', filter, firstMore],
    enabled: false,
    initialPageParam: firstMore ?? '',
    queryFn: ({ pageParam }) =>
      data(api.GET('/api/invoices/settled', { params: { query: { filter, after: pageParam } } })),
    getNextPageParam: (last) => last.more ?? undefined,
  });
  const olderRows = more.data?.pages.flatMap((p) => p.rows) ?? [];
  const hasMore = more.data ? more.hasNextPage : Boolean(firstMore);

  const turn = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const rows = [...(leaf.current?.querySelectorAll<HTMLAnchorElement>('[data-row]') ?? [])];
    const here = rows.findIndex((r) => r === document.activeElement || r.getAttribute('aria-current'));
    const next = rows[here + (event.key === 'ArrowDown' ? 1 : -1)];
    if (!next) return;
    event.preventDefault();
    next.focus();
    if (current !== null) void navigate(next.pathname + next.search);
  };

  return (
    <div className="index" ref={leaf} onKeyDown={turn}>
      <div className="filter">
        <input
          type="search"
          aria-label="Filter invoices"
          placeholder="Filter: name, number, what for…"
          value={filter}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setFilter(value);
            setSearch(value ? { filter: value } : {}, { replace: true });
          }}
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
                <section key={g.when} aria-label={names[g.when]}>
                  <h2>
                    {names[g.when]}
                    {g.when !== 'settled' && (
                      <span className={`money ${g.when === 'late' ? 'late' : ''}`}>
                        {[g.sum, ...g.inOthers].map((sum) => money(sum)).join(' + ')}
                      </span>
                    )}
                  </h2>
                  {g.rows.map((r) => (
                    <Row key={r.id} row={r} own={g.sum.currency} current={current} filter={filter} />
                  ))}
                  {g.when === 'settled' &&
                    olderRows.map((r) => (
                      <Row key={r.id} row={r} own={g.sum.currency} current={current} filter={filter} />
                    ))}
                  {g.when === 'settled' && hasMore && (
                    <p className="empty">
                      <button
                        type="button"
                        className="link"
                        onClick={() => void (more.data ? more.fetchNextPage() : more.refetch())}
                      >
                        Show earlier ones
                      </button>
                    </p>
                  )}
                </section>
              ))}
            </>
          )
        }
      </Loaded>
      <FromFile />
    </div>
  );
}
