import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';

import { money, shortDate } from '../design/format';
import { Sideways } from '../design/Sideways';
import { Loaded } from '../design/States';
import { useTitle } from '../design/useTitle';
import { runs } from '../api/today';

const tones: Record<string, string> = {
  done: 'got',
  'kept back': 'soon',
  failed: 'late',
  'not needed': 'faded',
};

/** The log of the daily run: what was done, kept back or not needed any more, and why. */
export function DonePage() {
  useTitle('Done so far');
  const log = useInfiniteQuery(runs);
  return (
    <div className="page">
      <div className="head">
        <div>
          <h1>Done so far</h1>
          <p className="faded" style={{ margin: '4px 0 0' }}>
            What the daily run did by itself, and what it left, with the reason.{' '}
            <Link to="/">What will happen</Link>
          </p>
        </div>
      </div>
      <Loaded query={log} what="the log">
        {(pages) => {
          const acts = pages.pages.flat();
          return acts.length === 0 ? (
            <p className="empty">Nothing was sent or charged by itself yet.</p>
          ) : (
            <>
              <Sideways label="What was done">
                <table className="ledger">
                  <thead>
                    <tr>
                      <th>Day</th>
                      <th>Client</th>
                      <th style={{ minWidth: '14em' }}>What</th>
                      <th className="n">Announced</th>
                      <th className="n">Done</th>
                      <th>Outcome</th>
                    </tr>
                  </thead>
                  <tbody>
                    {acts.map(({ act: a, client }) => (
                      <tr key={a.id}>
                        <td className="figures">{shortDate(a.on)}</td>
                        <td>
                          <Link to={`/clients/${a.clientId}`}>{client}</Link>
                        </td>
                        <td>
                          <Link to={`/invoices/${a.invoiceId}`}>{a.what}</Link>
                        </td>
                        <td className="n">{a.announced.map(money).join(' and ')}</td>
                        <td className="n">{a.done.map(money).join(' and ')}</td>
                        <td>
                          <b className={tones[a.outcome]}>{a.outcome}</b>
                          {a.reason && <span className="faded">: {a.reason}</span>}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Sideways>
              {log.hasNextPage && (
                <p className="empty">
                  <button type="button" className="link" onClick={() => void log.fetchNextPage()}>
                    Show earlier ones
                  </button>
                </p>
              )}
            </>
          );
        }}
      </Loaded>
    </div>
  );
}
