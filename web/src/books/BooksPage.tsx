import { Button } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { type Schemas } from '../api/client';
import { isNegative, isZero, magnitude, money, plain, shortDate } from '../design/format';
import { Sideways } from '../design/Sideways';
import { Refusal } from '../design/States';
import { useTitle } from '../design/useTitle';
import css from './Books.module.css';
import { books as booksQuery } from '../api/books';

type Amount = Schemas['Amount'];

/** A debit or a credit, in its column. */
function Sides({ amount, shown }: { amount: Amount; shown: (amount: Amount) => string }) {
  const figure = shown(magnitude(amount));
  return (
    <>
      <td className="n">{isNegative(amount) ? '' : figure}</td>
      <td className="n">{isNegative(amount) ? figure : ''}</td>
    </>
  );
}

function Balances({
  title,
  rows,
  shown,
}: {
  title: string;
  rows: Schemas['BalanceView'][];
  shown: (amount: Amount) => string;
}) {
  return (
    <Sideways label="Accounts">
      <table className="ledger" style={{ marginBottom: 28 }}>
        <thead>
          <tr>
            <th>{title}</th>
            <th className="n">Debit</th>
            <th className="n">Credit</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((b) => (
            <tr key={`${b.account}-${b.detail}-${b.amount.currency}`}>
              <td>
                {b.account} <span className="faded small">{b.detail}</span>
              </td>
              <Sides amount={b.amount} shown={shown} />
            </tr>
          ))}
        </tbody>
      </table>
    </Sideways>
  );
}

/** Income by the business's own categories, a column for each year. */
function Income({ years, rows }: { years: number[]; rows: Schemas['IncomeRow'][] }) {
  return (
    <Sideways label="Income by category">
      <table className="ledger" style={{ marginBottom: 28 }}>
        <thead>
          <tr>
            <th>Income by category</th>
            {years.map((y) => (
              <th key={y} className="n">
                {y}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.category}>
              <td>{r.category || <span className="faded">no category</span>}</td>
              {r.years.map((amount, i) => (
                <td key={years[i]} className="n">
                  {isZero(amount) ? '' : plain(amount)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Sideways>
  );
}

/** @param own the currency of the books; amounts in another one say which */
function Entry({ entry: e, own }: { entry: Schemas['EntryView']; own: string }) {
  return (
    <Fragment>
      <tr>
        <td className="figures">{e.id}</td>
        <td className="figures">{shortDate(e.on)}</td>
        <td colSpan={3}>
          {e.clientId != null ? <Link to={`/clients/${e.clientId}`}>{e.text}</Link> : e.text}
          <span className="faded small">
            {' '}
            {e.event.toLowerCase()} · {e.who}
            {e.reverses != null && ` · takes back entry ${e.reverses}`}
          </span>
        </td>
      </tr>
      {e.postings.map((p, i) => (
        <tr key={`${e.id}-${i}`}>
          <td style={{ border: 0 }} />
          <td style={{ border: 0 }} />
          <td style={{ paddingLeft: isNegative(p.amount) ? 34 : 6 }}>
            {p.account} <span className="faded small">{p.detail}</span>
          </td>
          <Sides amount={p.amount} shown={p.amount.currency === own ? plain : money} />
        </tr>
      ))}
    </Fragment>
  );
}

/** The journal and the balances, and whether all of it agrees. */
export function BooksPage() {
  useTitle('Books');
  const books = useInfiniteQuery(booksQuery);
  const first = books.data?.pages[0];
  if (!first) return <div className="empty">{books.isError && <Refusal error={books.error} />}</div>;
  const agree = first.disagreeing.length === 0 && isZero(first.sum);
  return (
    <div className="page">
      <h1>Books</h1>
      <p className={agree ? 'got' : 'alert'}>
        {agree
          ? `The books agree: all accounts sum to zero, and what each of ${first.clients} clients owes is the same by installments and by entries.`
          : `The books do not agree: accounts sum to ${plain(first.sum)}; ${first.disagreeing.join(', ')}.`}
      </p>
      <div className={css.tables}>
        <div>
          <Balances title="Account" rows={first.balances} shown={plain} />
        </div>
        <div>
          {first.income.length > 0 && <Income years={first.years} rows={first.income} />}
          {first.inOthers.length > 0 && (
            <Balances title="Of it, in other currencies" rows={first.inOthers} shown={money} />
          )}
        </div>
      </div>
      <h2>Journal</h2>
      <Sideways label="Journal">
        <table className="ledger">
          <thead>
            <tr>
              <th>Entry</th>
              <th>Date</th>
              <th>What</th>
              <th className="n">Debit</th>
              <th className="n">Credit</th>
            </tr>
          </thead>
          <tbody>
            {books.data?.pages
              .flatMap((p) => p.entries)
              .map((e) => (
                <Entry key={e.id} entry={e} own={first.sum.currency} />
              ))}
          </tbody>
        </table>
      </Sideways>
      {books.hasNextPage && (
        <Button variant="outline" mt="md" onClick={() => void books.fetchNextPage()}>
          Show earlier entries
        </Button>
      )}
    </div>
  );
}
