import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { type Schemas, type Why } from '../api/client';
import { isZero, longDate, money, plain } from '../design/format';
import { whyOfAll, whyOfClient } from '../design/reasons';
import { Sideways } from '../design/Sideways';
import { Loaded } from '../design/States';
import { WhyFigure } from '../design/Why';
import { AgingStrip } from './AgingStrip';
import { useTitle } from '../design/useTitle';
import { aging as agingQuery, agingAfter } from '../api/clients';

function Cell({ band, why }: { band: Schemas['Band']; why: () => Promise<Why> }) {
  return (
    <td className={`n ${band.band !== 'NOT_DUE' && !isZero(band.amount) ? 'late' : ''}`}>
      {isZero(band.amount) ? '–' : <WhyFigure text={plain(band.amount)} why={why} />}
    </td>
  );
}

/** What is open in one currency. */
function Table({ table }: { table: Schemas['AgingTable'] }) {
  const more = useInfiniteQuery(agingAfter(table.currency, table.more));
  const rows = [...table.rows, ...(more.data?.pages.flatMap((p) => p.rows) ?? [])];
  const hasMore = more.data ? more.hasNextPage : table.more != null;
  return (
    <section aria-label={`Open in ${table.currency}`} style={{ marginBottom: 28 }}>
      <AgingStrip bands={table.totals} why={(band) => whyOfAll(table.currency, band)} />
      {table.rows.length === 0 ? (
        <p className="empty">Nobody owes anything.</p>
      ) : (
        <Sideways label="Aging">
          <table className="ledger">
            <thead>
              <tr>
                <th>Client</th>
                {table.totals.map((b) => (
                  <th key={b.band} className="n">
                    {b.words}
                  </th>
                ))}
                <th className="n">In all</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.clientId}>
                  <td>
                    <Link to={`/clients/${r.clientId}`}>{r.client}</Link>
                  </td>
                  {r.bands.map((b) => (
                    <Cell key={b.band} band={b} why={whyOfClient(r.clientId, b.band, table.currency)} />
                  ))}
                  <td className="n">
                    <b>
                      <WhyFigure
                        text={plain(r.total)}
                        why={whyOfClient(r.clientId, 'open', table.currency)}
                      />
                    </b>
                  </td>
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr>
                <th>All clients</th>
                {table.totals.map((b) => (
                  <Cell key={b.band} band={b} why={whyOfAll(table.currency, b.band)} />
                ))}
                <td className="n">
                  <b>
                    <WhyFigure text={money(table.total)} why={whyOfAll(table.currency)} />
                  </b>
                </td>
              </tr>
            </tfoot>
          </table>
        </Sideways>
      )}
      {hasMore && (
        <p>
          <button
            type="button"
            className="link"
            disabled={more.isFetching}
            onClick={() => void (more.data ? more.fetchNextPage() : more.refetch())}
          >
            Show further ones, of {table.count} clients in all
          </button>
        </p>
      )}
    </section>
  );
}

/** What all clients owe, by how long it has been due; each currency by itself. */
export function AgingPage() {
  useTitle('Aging');
  const aging = useQuery(agingQuery);
  return (
    <Loaded query={aging} what="the aging">
      {(a) => (
        <div className="page">
          <div className="head">
            <div>
              <Link className="link" to="/clients">
                All clients
              </Link>
              <h1>Aging</h1>
              <p className="faded" style={{ margin: '4px 0 0' }}>
                {a.tables.map((t) => money(t.total)).join(' and ')} {a.tables.length > 1 ? 'are' : 'is'} open
                on {longDate(a.on)}, each installment by its own due date.
              </p>
            </div>
            <a className="link" href="/api/aging.csv" download>
              Save as CSV
            </a>{' '}
            <a className="link" href="/api/aging/debts.csv" download>
              Every open installment as CSV
            </a>
          </div>
          {a.tables.map((t) => (
            <Table key={t.currency} table={t} />
          ))}
        </div>
      )}
    </Loaded>
  );
}
