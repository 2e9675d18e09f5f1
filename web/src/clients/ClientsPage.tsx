import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Schemas } from '../api/client';
import { aging as agingQuery, clientsOf, type ClientsView } from '../api/clients';
import { isNegative, isZero, money, plain, shortDate } from '../design/format';
import css from '../design/Form.module.css';
import { Loaded } from '../design/States';
import { useAddressView } from '../design/useAddressView';
import { useTitle } from '../design/useTitle';
import { useTyped } from '../design/useTyped';
import { KeptViews } from '../lists/KeptViews';
import { TakeTable } from '../tables/TakeTable';
import { ClientForm } from './ClientForm';
import { ClientRecord } from './ClientRecord';

type Row = Schemas['ClientRow'];

function underline(c: Row): string {
  if (!isZero(c.late)) return `${plain(c.late)} is ${c.daysLate} ${c.daysLate === 1 ? 'day' : 'days'} late`;
  if (isNegative(c.owes)) return 'credit';
  if (isZero(c.owes) && c.inOthers.length > 0) return 'in another currency';
  return c.nextDueOn ? `due ${shortDate(c.nextDueOn)}` : 'owes nothing';
}

const owes = (c: Row) =>
  isZero(c.owes) && c.inOthers.length > 0
    ? c.inOthers.map((o) => money(o)).join(' + ')
    : [plain(c.owes), ...c.inOthers.map((o) => money(o))].join(' + ');

function Index({ open }: { open: string | undefined }) {
  const { get, is, change, tail } = useAddressView();
  const view: ClientsView = { filter: get('filter'), sort: get('sort', 'late'), archived: is('archived') };
  const typed = useTyped(view.filter, (text) => change('filter', text));
  const clients = useInfiniteQuery(clientsOf(view));
  const files = new URLSearchParams({ ...view, archived: String(view.archived) }).toString();
  return (
    <div className="index">
      <div className="filter">
        <input
          type="search"
          aria-label="Filter clients"
          placeholder="Name, mail, telephone, reference…"
          {...typed}
        />
        <Link className="link" to="/aging">
          Aging
        </Link>
        <Link className="link" to="/clients/new">
          New client
        </Link>
      </div>
      <div className={css.tools}>
        <select aria-label="Order" value={view.sort} onChange={(e) => change('sort', e.target.value)}>
          <option value="late">the latest first</option>
          <option value="owes">who owes most first</option>
          <option value="name">by name</option>
        </select>
        <label>
          <input
            type="checkbox"
            checked={view.archived}
            onChange={(e) => change('archived', e.target.checked)}
          />{' '}
          archived
        </label>
        <a className="link" href={`/api/clients/list.csv?${files}`} download>
          CSV
        </a>
        <a className="link" href={`/api/clients/list.vcf?${files}`} download>
          vCard
        </a>
        <Link className="link" to="/clients/table">
          Take in
        </Link>
      </div>
      <KeptViews place="/clients" />
      <Loaded query={clients} what="the clients">
        {({ pages }) =>
          pages[0]?.count === 0 ? (
            <p className="empty">
              {view.filter || view.archived ? 'No client fits. ' : 'Whom you bill stands here. '}
              <Link to="/clients/new">Add {view.filter ? 'a' : 'the first'} client</Link>, or{' '}
              <Link to="/clients/table">take a table or cards in</Link>.
            </p>
          ) : (
            <>
              {pages
                .flatMap((p) => p.rows)
                .map((c) => (
                  <Link
                    key={c.id}
                    className="row"
                    to={`/clients/${c.id}${tail}`}
                    aria-current={String(c.id) === open ? 'true' : undefined}
                  >
                    <span className="who">{c.name}</span>
                    <span className={`open money ${isZero(c.late) ? '' : 'late'}`}>{owes(c)}</span>
                    <span className={`what ${isZero(c.late) ? '' : 'late'}`}>
                      {[underline(c), ...c.tags].join(' · ')}
                    </span>
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
  );
}

/** What is asked next where no client is open: who is late. */
function WhoIsLate() {
  const clients = useInfiniteQuery(clientsOf({ filter: '', sort: 'late', archived: false }));
  const late = (clients.data?.pages[0]?.rows ?? []).filter((c) => !isZero(c.late));
  const aging = useQuery(agingQuery);
  const tables = aging.data?.tables ?? [];
  return (
    <div className="page">
      <h1>Clients</h1>
      {aging.data && (
        <p className="faded">
          {tables.length === 0 || tables.every((t) => isZero(t.total))
            ? 'Nobody owes anything.'
            : `${tables.map((t) => money(t.total)).join(' and ')} ${tables.length > 1 ? 'are' : 'is'} open.`}
        </p>
      )}
      {late.length > 0 && (
        <>
          <h2>Who is late</h2>
          <table className="ledger">
            <tbody>
              {late.slice(0, 12).map((c) => (
                <tr key={c.id}>
                  <td>
                    <Link to={`/clients/${c.id}`}>{c.name}</Link>
                  </td>
                  <td className="n late">{plain(c.late)}</td>
                  <td className="n faded">
                    {c.daysLate} {c.daysLate === 1 ? 'day' : 'days'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}

/** The spread of clients: who owes what, and the account of one. */
export function ClientsPage() {
  const { id } = useParams();
  useTitle(id ? null : 'Clients');
  const navigate = useNavigate();
  const [search] = useSearchParams();
  // The sheet from which it was called for.
  const back = ['invoice', 'quote'].flatMap((kind) => {
    const sheet = search.get(kind);
    return sheet ? [`/${kind}s/${sheet}`] : [];
  })[0];
  return (
    <div className={`spread ${id ? 'has-record' : ''}`}>
      <Index open={id} />
      <div className="record">
        <div style={{ overflow: 'auto' }}>
          {id === 'new' ? (
            <div className="page">
              <Link className="link back" to="/clients">
                All clients
              </Link>
              <h1>A new client</h1>
              <ClientForm
                client={null}
                onDone={(c) => void navigate(back ? `${back}?client=${c.id}` : `/clients/${c.id}`)}
              />
            </div>
          ) : id === 'table' ? (
            <div className="page">
              <Link className="link back" to="/clients">
                All clients
              </Link>
              <h1>Take clients in</h1>
              <p className="faded">From a table, or from cards (vCard) of your address book.</p>
              <TakeTable
                path="/api/clients/table"
                one="client"
                many="clients"
                cards
                onTaken={() => void navigate('/clients')}
              />
            </div>
          ) : id ? (
            <ClientRecord key={id} id={Number(id)} />
          ) : (
            <WhoIsLate />
          )}
        </div>
      </div>
    </div>
  );
}
