import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { isZero, longDate, money, plain } from '../design/format';
import { Loaded } from '../design/States';
import { AgingStrip } from './AgingStrip';

type Row = Schemas['AgingRow'];

function Cell({ band }: { band: Schemas['Band'] }) {
  return (
    <td className={`n ${band.band !== 'NOT_DUE' && !isZero(band.amount) ? 'late' : ''}`}>
      {isZero(band.amount) ? '–' : plain(band.amount)}
    </td>
  );
}

/** What all clients owe, by how long it has been due. */
export function AgingPage() {
  const aging = useQuery({ queryKey: ['aging'], queryFn: () => data(api.GET('/api/aging')) });
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
                {money(a.total)} is open on {longDate(a.on)}, each installment by its own due date.
              </p>
            </div>
            <a className="link" href="/api/aging.csv" download>
              Save as CSV
            </a>
          </div>
          <AgingStrip bands={a.totals} />
          {a.rows.length === 0 ? (
            <p className="empty">Nobody owes anything.</p>
          ) : (
            <table className="ledger">
              <thead>
                <tr>
                  <th>Client</th>
                  {a.totals.map((b) => (
                    <th key={b.band} className="n">
                      {b.words}
                    </th>
                  ))}
                  <th className="n">In all</th>
                </tr>
              </thead>
              <tbody>
                {a.rows.map((r: Row) => (
                  <tr key={r.clientId}>
                    <td>
                      <Link to={`/clients/${r.clientId}`}>{r.client}</Link>
                    </td>
                    {r.bands.map((b) => (
                      <Cell key={b.band} band={b} />
                    ))}
                    <td className="n">
                      <b>{plain(r.total)}</b>
                    </td>
                  </tr>
                ))}
              </tbody>
              <tfoot>
                <tr>
                  <th>All clients</th>
                  {a.totals.map((b) => (
                    <Cell key={b.band} band={b} />
                  ))}
                  <td className="n">
                    <b>{plain(a.total)}</b>
                  </td>
                </tr>
              </tfoot>
            </table>
          )}
        </div>
      )}
    </Loaded>
  );
}
