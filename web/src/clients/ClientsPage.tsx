import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { isNegative, isZero, money, plain, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { ClientForm } from './ClientForm';
import { ClientRecord } from './ClientRecord';
import { useTitle } from '../design/useTitle';

function underline(c: Schemas['ClientRow']): string {
  if (!isZero(c.late)) return `${plain(c.late)} is ${c.daysLate} ${c.daysLate === 1 ? 'day' : 'days'} late`;
  if (isNegative(c.owes)) return 'credit';
  if (isZero(c.owes) && c.inOthers.length > 0) return 'in another currency';
  return c.nextDueOn ? `due ${shortDate(c.nextDueOn)}` : 'owes nothing';
}

/** The spread of clients: who owes what, and the account of one. */
export function ClientsPage() {
  const { id } = useParams();
  useTitle(id ? null : 'Clients');
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const back = search.get('invoice');
  const [filter, setFilter] = useState('');
  const clients = useInfiniteQuery({
    queryKey: ['clients', filter],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam: after }) =>
      data(api.GET('/api/clients', { params: { query: { filter, after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
    placeholderData: (before) => before,
  });
  return (
    <div className={`spread ${id ? 'has-record' : ''}`}>
      <div className="index">
        <div className="filter">
          <input
            type="search"
            aria-label="Filter clients"
            placeholder="Filter clients…"
            value={filter}
            onChange={(e) => setFilter(e.currentTarget.value)}
          />
          <Link className="link" to="/aging">
            Aging
          </Link>
          <Link className="link" to="/clients/new">
            New client
          </Link>
        </div>
        <Loaded query={clients} what="the clients">
          {({ pages }) =>
            pages[0]?.count === 0 ? (
              <p className="empty">
                {filter ? 'No client fits this filter. ' : ''}Whom you bill stands here.{' '}
                <Link to="/clients/new">Add the first client.</Link>
              </p>
            ) : (
              <>
                {pages
                  .flatMap((p) => p.rows)
                  .map((c) => (
                    <Link
                      key={c.id}
                      className="row"
                      to={`/clients/${c.id}`}
                      aria-current={String(c.id) === id ? 'true' : undefined}
                    >
                      <span className="who">{c.name}</span>
                      <span className={`open money ${isZero(c.late) ? '' : 'late'}`}>
                        {isZero(c.owes) && c.inOthers.length > 0
                          ? c.inOthers.map((o) => money(o)).join(' + ')
                          : [plain(c.owes), ...c.inOthers.map((o) => money(o))].join(' + ')}
                      </span>
                      <span className={`what ${isZero(c.late) ? '' : 'late'}`}>{underline(c)}</span>
                    </Link>
                  ))}
                {clients.hasNextPage && (
                  <p className="empty">
                    <button
                      type="button"
                      className="link"
                      disabled={clients.isFetching}
                      onClick={() => void clients.fetchNextPage()}
                    >
                      Show further ones, of {pages[0]?.count} in all
                    </button>
                  </p>
                )}
              </>
            )
          }
        </Loaded>
      </div>
      <div className="record">
        <div style={{ overflow: 'auto' }}>
          {id === 'new' ? (
            <div className="page">
              <h1>A new client</h1>
              <ClientForm
                client={null}
                onDone={(c) => void navigate(back ? `/invoices/${back}?client=${c.id}` : `/clients/${c.id}`)}
              />
            </div>
          ) : id ? (
            <ClientRecord key={id} id={Number(id)} />
          ) : (
            <p className="empty">Choose a client to see the account.</p>
          )}
        </div>
      </div>
    </div>
  );
}
