import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { csvOf, paymentRows, paymentTotals } from '../api/lists';
import { isZero, money, shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { useTitle } from '../design/useTitle';
import { KeptViews } from './KeptViews';
import { type Column, Further, ListTable, ListTools, useListView } from './ListTable';
import css from './lists.module.css';

const kinds = [
  ['', 'everything'],
  ['card', 'by card'],
  ['bank_debit', 'by bank debit'],
  ['wallet', 'by wallet'],
  ['transfer', 'by transfer'],
  ['cash', 'in cash'],
  ['cheque', 'by cheque'],
  ['arrived', 'at the card processor'],
  ['paid_out', 'paid out'],
  ['back', 'what went back, or a part of it'],
  ['contested', 'contested'],
  ['undone', 'what was undone'],
  ['test', 'on trial only'],
] as const;

const columns: Column<Schemas['ListedPayment']>[] = [
  {
    name: 'received',
    head: 'Received',
    sort: 'received',
    cell: (r) =>
      r.standing === 'TEST' ? (
        <span className={css.keep}>{shortDate(r.receivedOn)}</span>
      ) : (
        <Link className={css.keep ?? ''} to={`/money-in/payment-${r.id}`}>
          {shortDate(r.receivedOn)}
        </Link>
      ),
  },
  {
    name: 'client',
    head: 'Client',
    sort: 'client',
    cell: (r) => <Link to={`/clients/${r.clientId}`}>{r.clientName}</Link>,
  },
  {
    name: 'invoice',
    head: 'Invoice',
    cell: (r) =>
      r.invoiceId == null ? '' : <Link to={`/invoices/${r.invoiceId}`}>{r.number ?? 'draft'}</Link>,
  },
  {
    name: 'way',
    head: 'By',
    sort: 'way',
    cell: (r) => (
      <>
        {r.standing === 'TEST' && <b>test</b>} {r.way}
      </>
    ),
  },
  {
    name: 'reference',
    head: 'Reference',
    cell: (r) => (
      <>
        {r.reference} {r.note && <span className="faded">{r.note}</span>}
      </>
    ),
  },
  {
    name: 'fee',
    head: 'Processing fee',
    number: true,
    cell: (r) => (isZero(r.fee) ? '' : money(r.fee)),
  },
  {
    name: 'amount',
    head: 'Amount',
    sort: 'amount',
    number: true,
    cell: (r) => <span className={r.standing === 'COUNTS' ? undefined : css.undone}>{money(r.amount)}</span>,
  },
];

/** All that came in: who paid, what for, how and when. */
export function PaymentsPage() {
  useTitle('All payments');
  const { view, change, sortBy } = useListView('received');
  const rows = useInfiniteQuery(paymentRows(view));
  const totals = useQuery(paymentTotals(view));
  return (
    <div className={css.page}>
      <h1>All payments</h1>
      <ListTools label="what came in" view={view} kinds={kinds} period="Received" change={change}>
        <a className="link small" href={csvOf('/api/payments/list.csv', view)} download>
          Save as CSV
        </a>
      </ListTools>
      <KeptViews place="/money-in/list" />
      <Loaded query={rows} what="what came in">
        {({ pages }) => {
          const all = pages.flatMap((p) => p.rows);
          return all.length === 0 ? (
            <p className="empty">
              {view.filter || view.which || view.from || view.to
                ? 'Nothing that came in fits.'
                : 'What clients pay stands here: by card by itself, else as you record it on an invoice.'}
            </p>
          ) : (
            <ListTable
              label="Money in"
              rows={all}
              columns={columns}
              view={view}
              sortBy={sortBy}
              foot={totals.data?.map((t) => (
                <tr key={t.amount.currency}>
                  <th colSpan={5}>
                    {view.which === 'test'
                      ? `${t.count} on trial: no money`
                      : `${t.count} in all, without what was undone or went back`}
                  </th>
                  <td className="n" data-label="Processing fee">
                    {isZero(t.fee) ? '' : money(t.fee)}
                  </td>
                  <td className="n" data-label="Amount">
                    <b>{money(t.amount)}</b>
                  </td>
                </tr>
              ))}
            />
          );
        }}
      </Loaded>
      <Further rows={rows} />
    </div>
  );
}
