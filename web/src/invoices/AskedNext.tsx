import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { invoiceRows } from '../api/lists';
import { todayOf } from '../api/today';
import { money, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { WhatWillHappen } from '../today/WhatWillHappen';

const LATE_SHOWN = 12;
const longestLate = { filter: '', which: 'late', from: '', to: '', sort: 'due', down: false };

/** What is asked next where no invoice is open: who is late, and what goes out by itself. */
export function AskedNext() {
  const late = useInfiniteQuery(invoiceRows(longestLate));
  const today = useQuery(todayOf(6));
  return (
    <div className="page">
      <h1>Invoices</h1>
      <p className="faded">Choose one from the list, or press N to write a new one.</p>
      <Loaded query={late} what="what is late">
        {({ pages }) => {
          const rows = pages[0]?.rows.slice(0, LATE_SHOWN) ?? [];
          return rows.length === 0 ? (
            <p>Nothing is late.</p>
          ) : (
            <>
              <div className="part-head">
                <h2>Late the longest</h2>
                <Link className="link small" to="/invoices/list?which=late&sort=due&way=up">
                  All that is late, as a list
                </Link>
              </div>
              <table className="ledger" style={{ marginBottom: 24 }}>
                <tbody>
                  {rows.map((r) => (
                    <tr key={r.id}>
                      <td>
                        <Link to={`/invoices/${r.id}`}>{r.clientName}</Link>
                      </td>
                      <td>
                        {r.number} <span className="faded">{r.subject}</span>
                      </td>
                      <td className="late">{r.dueOn && `since ${shortDate(r.dueOn)}`}</td>
                      <td className="n">{money(r.open)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          );
        }}
      </Loaded>
      <Loaded query={today} what="what will happen">
        {(t) => (
          <WhatWillHappen
            acts={t.acts}
            moreActs={t.moreActs}
            allKeptBack={t.allKeptBack}
            allKeptUntil={t.allKeptUntil ?? null}
            today={t.today}
          />
        )}
      </Loaded>
    </div>
  );
}
