import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Schemas } from '../api/client';
import { accountOf } from '../api/clients';
import { isNegative, isZero, magnitude, money, plain, shortDate } from '../design/format';
import { MeasureBar } from '../design/Measure';
import { whyOfClient, whyOpen } from '../design/reasons';
import { Sideways } from '../design/Sideways';
import { Loaded } from '../design/States';
import { WhyFigure } from '../design/Why';
import { PaymentDialog } from '../invoices/PaymentDialog';
import { AgingStrip } from './AgingStrip';
import { ClientChasing } from './ClientChasing';
import { ClientForm } from './ClientForm';
import { Payers } from './Payers';
import { RefundDialog } from './RefundDialog';
import { Standing } from './Standing';
import { useTitle } from '../design/useTitle';
import { Dialog } from '../design/Dialog';

type Account = Schemas['AccountView'];

/** What stands between the two, in a sentence. */
function Sentence({ account: a }: { account: Account }) {
  const { id } = a.client;
  const figure = (amount: Schemas['Amount'], what: string) => (
    <WhyFigure text={money(magnitude(amount))} why={whyOfClient(id, what, a.sums.owes.currency)} />
  );
  return (
    <p className="sentence" style={{ fontSize: 20 }}>
      {isZero(a.sums.owes) ? (
        <>Owes nothing, {figure(a.sums.owes, 'owes')}.</>
      ) : (
        <>
          {isNegative(a.sums.owes) ? 'Is owed' : 'Owes'} <b>{figure(a.sums.owes, 'owes')}</b>
          {isZero(a.sums.late) ? (
            '.'
          ) : (
            <>
              , <span className="late">{figure(a.sums.late, 'late')}</span> of it late.
            </>
          )}
        </>
      )}
      {!isZero(a.sums.credit) && (
        <>
          {' '}
          <span className="got">{money(a.sums.credit)}</span> is client credit
          {!isZero(a.sums.waiting) &&
            `, ${money(a.sums.waiting)} of it waits for the draft that replaces an invoice`}
          .
        </>
      )}
      {!isZero(a.sums.deposits) && (
        <>
          {' '}
          <span className="got">{money(a.sums.deposits)}</span> is held as deposits.
        </>
      )}
    </p>
  );
}

function Facts({ account: a }: { account: Account }) {
  const { client: c } = a;
  const facts = [
    c.contact,
    c.email || 'no e-mail address yet',
    c.more.phone,
    c.address.replace(/\n/g, ', '),
    c.more.delivery && `delivered to ${c.more.delivery.replace(/\n/g, ', ')}`,
    c.taxNumber && `tax number ${c.taxNumber}`,
    c.certificate &&
      `pays no tax by ${c.certificate}${c.exemptUntil ? ` until ${shortDate(c.exemptUntil)}` : ''}`,
    c.more.number && `your number ${c.more.number}`,
    c.more.daysToPay !== null && `${c.more.daysToPay} days to pay`,
    ...c.more.contacts.map(
      (o) =>
        [o.name, o.email, o.phone].filter(Boolean).join(', ') +
        (o.reminders ? ' (reminders)' : '') +
        (o.receipts ? ' (pays)' : ''),
    ),
  ].filter(Boolean);
  return (
    <>
      <p className="faded" style={{ margin: '4px 0 0', overflowWrap: 'anywhere' }}>
        {facts.join(' · ')}
      </p>
      {c.more.tags.length > 0 && <p className="faded small">{c.more.tags.join(' · ')}</p>}
      {c.more.notes && (
        <p className="pre small" style={{ borderLeft: '2px solid var(--rule)', paddingLeft: 10 }}>
          {c.more.notes}
        </p>
      )}
    </>
  );
}

function Open({ account }: { account: Account }) {
  const open = account.invoices.filter((i) => i.open && !isZero(i.open));
  if (open.length === 0) return null;
  return (
    <Sideways label="Still open">
      <table className="ledger" style={{ marginBottom: 24 }}>
        <thead>
          <tr>
            <th>Still open</th>
            <th style={{ width: '34%' }} aria-label="The Measure" />
            <th>Next due</th>
            <th className="n">Open</th>
          </tr>
        </thead>
        <tbody>
          {open.map((i) => (
            <tr key={i.id}>
              <td>
                <Link to={`/invoices/${i.id}`}>{i.number ?? 'draft'}</Link>{' '}
                <span className="faded">{i.subject}</span>
              </td>
              <td style={{ verticalAlign: 'middle' }}>
                {i.measure.length > 0 && <MeasureBar parts={i.measure} height={8} />}
              </td>
              <td className={i.late ? 'late' : undefined}>
                {i.nextDueOn ? shortDate(i.nextDueOn) : 'not issued'}
              </td>
              <td className={`n ${i.late ? 'late' : ''}`}>
                {i.open && i.number && (
                  <WhyFigure
                    text={i.open.currency === account.sums.owes.currency ? plain(i.open) : money(i.open)}
                    why={whyOpen(i.id)}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sideways>
  );
}

/** The account of a client: every charge and receipt, with what was owed after each. */
export function ClientRecord({ id }: { id: number }) {
  const [search] = useSearchParams();
  const currency = search.get('in') ?? undefined;
  const account = useQuery(accountOf(id, currency));
  const navigate = useNavigate();
  // The record of one that was merged into another leads on to it.
  const now = account.data?.client.id;
  useEffect(() => {
    if (now !== undefined && now !== id) void navigate(`/clients/${now}`, { replace: true });
  }, [now, id, navigate]);
  useTitle(account.data?.client.name ?? 'Clients');
  const [paying, setPaying] = useState(false);
  const [editing, setEditing] = useState(false);
  const [giving, setGiving] = useState(false);
  return (
    <Loaded query={account} what="the account">
      {(a) => (
        <div className="page">
          <div className="head">
            <div>
              <Link className="link back" to="/clients">
                All clients
              </Link>
              <h1>{a.client.name}</h1>
              <Facts account={a} />
            </div>
            <div style={{ display: 'flex', gap: 12, flexWrap: 'wrap' }}>
              <Standing account={a} />
              <Button variant="outline" onClick={() => setEditing(true)}>
                Details
              </Button>
              <Button onClick={() => setPaying(true)}>Record a payment</Button>
            </div>
          </div>
          {a.archived && <p className="soon">Archived: offered on no new invoice.</p>}
          <Sentence account={a} />
          <Payers client={a.client} />
          {!(isZero(a.sums.credit) && isZero(a.sums.deposits)) && (
            <p>
              <button type="button" className="link" onClick={() => setGiving(true)}>
                Give money back…
              </button>
            </p>
          )}
          {(a.sums.inOthers.length > 0 || currency) && (
            <p>
              {currency && (
                <Link className="link" to={`/clients/${id}`}>
                  In the business’s own currency
                </Link>
              )}
              {a.sums.inOthers
                .filter((o) => o.currency !== currency)
                .map((o) => (
                  <Link key={o.currency} className="link" to={`/clients/${id}?in=${o.currency}`}>
                    In {o.currency}: {money(o)}
                  </Link>
                ))}
            </p>
          )}
          <AgingStrip bands={a.aging} why={(band) => whyOfClient(id, band, a.sums.owes.currency)} />
          <Open account={a} />
          {a.rows.length === 0 ? (
            <p className="empty">Nothing was charged or received yet.</p>
          ) : (
            <Sideways label="The account">
              <table className="ledger">
                <thead>
                  <tr>
                    <th>Date</th>
                    <th>What</th>
                    <th className="n">Charged</th>
                    <th className="n">Received</th>
                    <th className="n">Owes then</th>
                  </tr>
                </thead>
                <tbody>
                  {a.rows.map((r) => (
                    <tr key={r.entry}>
                      <td className="figures">{shortDate(r.on)}</td>
                      <td>{r.what}</td>
                      <td className="n">{isZero(r.charged) ? '' : plain(r.charged)}</td>
                      <td className="n">{isZero(r.received) ? '' : plain(r.received)}</td>
                      <td className="n">
                        <b>{plain(r.balance)}</b>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Sideways>
          )}
          <p className={a.books.agrees ? 'faded small' : 'alert'}>
            Open installments less credit and deposits {plain(a.books.byDebts)} {a.books.agrees ? '=' : '≠'}{' '}
            entries {plain(a.books.byPostings)}.{' '}
            {a.books.agrees ? 'The books agree.' : 'The books do not agree.'}
          </p>
          <ClientChasing id={id} />
          {giving && <RefundDialog account={a} onClose={() => setGiving(false)} />}
          {paying && (
            <PaymentDialog
              clientId={id}
              invoiceId={null}
              currency={a.sums.owes.currency}
              suggested={isNegative(a.sums.owes) ? '' : a.sums.owes.amount}
              onClose={() => setPaying(false)}
            />
          )}
          <Dialog opened={editing} onClose={() => setEditing(false)} size="xl" title={a.client.name}>
            <ClientForm client={a.client} onDone={() => setEditing(false)} />
          </Dialog>
        </div>
      )}
    </Loaded>
  );
}
