import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { isNegative, isZero, money, plain, shortDate } from '../design/format';
import { MeasureBar } from '../design/Measure';
import { whyOfClient, whyOpen } from '../design/reasons';
import { Loaded } from '../design/States';
import { WhyFigure } from '../design/Why';
import { PaymentDialog } from '../invoices/PaymentDialog';
import { AgingStrip } from './AgingStrip';
import { ClientChasing } from './ClientChasing';
import { ClientForm } from './ClientForm';
import { useTitle } from '../design/useTitle';

type Account = Schemas['AccountView'];

function Strip({ account: a }: { account: Account }) {
  return (
    <div className="strip">
      <div>
        <span className="faded small">{isNegative(a.owes) ? 'is owed' : 'owes in all'}</span>
        <b>
          <WhyFigure
            text={money(a.owes).replace('−', '')}
            why={whyOfClient(a.client.id, 'owes', a.owes.currency)}
          />
        </b>
      </div>
      <div>
        <span className="faded small">of it late</span>
        <b className={isZero(a.late) ? undefined : 'late'}>
          {isZero(a.late) ? (
            '–'
          ) : (
            <WhyFigure text={plain(a.late)} why={whyOfClient(a.client.id, 'late', a.owes.currency)} />
          )}
        </b>
      </div>
      <div>
        <span className="faded small">client credit</span>
        <b className={isZero(a.credit) ? undefined : 'got'}>{isZero(a.credit) ? '–' : plain(a.credit)}</b>
        {!isZero(a.waiting) && (
          <span className="faded small">
            {plain(a.waiting)} of it waits for the draft that replaces an invoice
          </span>
        )}
      </div>
      {!isZero(a.deposits) && (
        <div>
          <span className="faded small">deposits held</span>
          <b className="got">{plain(a.deposits)}</b>
        </div>
      )}
    </div>
  );
}

function Open({ account }: { account: Account }) {
  const open = account.invoices.filter((i) => i.open && !isZero(i.open));
  if (open.length === 0) return null;
  return (
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
                  text={i.open.currency === account.owes.currency ? plain(i.open) : money(i.open)}
                  why={whyOpen(i.id)}
                />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The account of a client: every charge and receipt, with what was owed after each. */
export function ClientRecord({ id }: { id: number }) {
  const [search] = useSearchParams();
  const currency = search.get('in') ?? undefined;
  const account = useQuery({
    queryKey: ['client', id, currency],
    queryFn: () => data(api.GET('/api/clients/{id}', { params: { path: { id }, query: { in: currency } } })),
  });
  useTitle(account.data?.client.name ?? 'Clients');
  const [paying, setPaying] = useState(false);
  const [editing, setEditing] = useState(false);
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
              <p className="faded" style={{ margin: '4px 0 0' }}>
                {[
                  a.client.contact,
                  a.client.email || 'no e-mail address yet',
                  a.client.address.replace(/\n/g, ', '),
                  a.client.taxNumber && `tax number ${a.client.taxNumber}`,
                  a.client.certificate &&
                    `pays no tax by ${a.client.certificate}${a.client.exemptUntil ? ` until ${shortDate(a.client.exemptUntil)}` : ''}`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            <div style={{ display: 'flex', gap: 12 }}>
              <Button variant="outline" onClick={() => setEditing(true)}>
                Change
              </Button>
              <Button onClick={() => setPaying(true)}>Record a payment</Button>
            </div>
          </div>
          <Strip account={a} />
          {(a.inOthers.length > 0 || currency) && (
            <p>
              {currency && (
                <Link className="link" to={`/clients/${id}`}>
                  In the business’s own currency
                </Link>
              )}
              {a.inOthers
                .filter((o) => o.currency !== currency)
                .map((o) => (
                  <Link key={o.currency} className="link" to={`/clients/${id}?in=${o.currency}`}>
                    In {o.currency}: {money(o)}
                  </Link>
                ))}
            </p>
          )}
          <AgingStrip bands={a.aging} why={(band) => whyOfClient(id, band, a.owes.currency)} />
          <Open account={a} />
          {a.rows.length === 0 ? (
            <p className="empty">Nothing was charged or received yet.</p>
          ) : (
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
          )}
          <p className={a.agrees ? 'faded small' : 'alert'}>
            Open installments less credit and deposits {plain(a.byInstallments)} {a.agrees ? '=' : '≠'}{' '}
            entries {plain(a.byPostings)}. {a.agrees ? 'The books agree.' : 'The books do not agree.'}
          </p>
          <ClientChasing id={id} />
          {paying && (
            <PaymentDialog
              clientId={id}
              invoiceId={null}
              currency={a.owes.currency}
              suggested={isNegative(a.owes) ? '' : a.owes.amount}
              onClose={() => setPaying(false)}
            />
          )}
          <Modal
            opened={editing}
            onClose={() => setEditing(false)}
            title={a.client.name}
            closeButtonProps={{ 'aria-label': 'Close' }}
          >
            <ClientForm client={a.client} onDone={() => setEditing(false)} />
          </Modal>
        </div>
      )}
    </Loaded>
  );
}
