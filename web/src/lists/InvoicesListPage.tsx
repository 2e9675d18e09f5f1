import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { csvOf, invoiceRows, invoiceTotals } from '../api/lists';
import { isZero, money, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { useTitle } from '../design/useTitle';
import { KeptViews } from './KeptViews';
import { type Column, Further, ListTable, ListTools, useListView } from './ListTable';
import { Several } from './Several';
import css from './lists.module.css';

type Listed = Schemas['ListedInvoice'];
const kinds = [
  ['', 'everything'],
  ['open', 'open'],
  ['late', 'late'],
  ['draft', 'drafts'],
  ['settled', 'settled'],
  ['void', 'void'],
] as const;

const columns: Column<Listed>[] = [
  {
    name: 'number',
    head: 'Number',
    sort: 'number',
    cell: (r) => (
      <Link className={css.keep} to={`/invoices/${r.id}`}>
        {r.number ?? 'draft'}
      </Link>
    ),
  },
  {
    name: 'client',
    head: 'Client',
    sort: 'client',
    cell: (r) =>
      r.clientId == null ? 'No client yet' : <Link to={`/clients/${r.clientId}`}>{r.clientName}</Link>,
  },
  { name: 'subject', head: 'For', cell: (r) => r.subject },
  {
    name: 'issued',
    head: 'Issued',
    sort: 'issued',
    said: true,
    cell: (r) => (r.issuedOn ? <span className={css.keep}>{shortDate(r.issuedOn)}</span> : ''),
  },
  {
    name: 'due',
    head: 'Due',
    sort: 'due',
    said: true,
    cell: (r) => {
      const due = r.dueOn ? `${shortDate(r.dueOn)}${r.how === 'late' ? ', late' : ''}` : r.how;
      return due === 'draft' ? (
        ''
      ) : (
        <span className={`${css.keep} ${r.how === 'late' ? 'late' : ''}`}>{due}</span>
      );
    },
  },
  {
    name: 'total',
    head: 'Total',
    sort: 'total',
    number: true,
    cell: (r) =>
      r.total ? <span className={r.how === 'void' ? css.undone : undefined}>{money(r.total)}</span> : '',
  },
  {
    name: 'open',
    head: 'Open',
    sort: 'open',
    number: true,
    cell: (r) => (isZero(r.open) ? '' : money(r.open)),
  },
];

/** Every invoice as one table: filtered, ordered, added up; several are sent, reminded or printed at once. */
export function InvoicesListPage() {
  useTitle('All invoices');
  const { view, change, sortBy } = useListView('issued');
  const rows = useInfiniteQuery(invoiceRows(view));
  const totals = useQuery(invoiceTotals(view));
  const [chosen, setChosen] = useState<ReadonlyMap<number, Listed>>(new Map());
  const all = rows.data?.pages.flatMap((p) => p.rows) ?? [];
  const choose = (ids: number[], on: boolean) =>
    setChosen((before) => {
      const next = new Map(before);
      for (const row of all) {
        if (!ids.includes(row.id)) continue;
        if (on) next.set(row.id, row);
        else next.delete(row.id);
      }
      return next;
    });
  return (
    <div className={css.page}>
      <p className="small" style={{ margin: 0 }}>
        <Link className="link" to="/invoices">
          Invoices by when
        </Link>
      </p>
      <h1>All invoices</h1>
      <ListTools label="all invoices" view={view} kinds={kinds} period="Issued" change={change}>
        <a className="link small" href={csvOf('/api/invoices/list.csv', view)} download>
          Save as CSV
        </a>
      </ListTools>
      <KeptViews place="/invoices/list" />
      <Loaded query={rows} what="the invoices">
        {() =>
          all.length === 0 ? (
            <p className="empty">No invoice fits.</p>
          ) : (
            <ListTable
              label="All invoices"
              rows={all}
              columns={columns}
              view={view}
              sortBy={sortBy}
              chosen={new Set(chosen.keys())}
              nameOf={(r) => `${r.number ?? 'draft'}, ${r.clientName || 'no client yet'}`}
              onChoose={choose}
              foot={totals.data?.map((t) => (
                <tr key={t.total.currency}>
                  <th colSpan={6}>{t.count} in all; what is void adds nothing</th>
                  <td className="n" data-label="Total">
                    <b>{money(t.total)}</b>
                  </td>
                  <td className="n" data-label="Open">
                    <b>{money(t.open)}</b>
                  </td>
                </tr>
              ))}
            />
          )
        }
      </Loaded>
      <Further rows={rows} />
      {chosen.size > 0 && <Several invoices={[...chosen.values()]} onNone={() => setChosen(new Map())} />}
    </div>
  );
}
