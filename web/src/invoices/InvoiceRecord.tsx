import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Correspondence, MuteField } from '../clients/ClientChasing';
import { MeasureFigure } from '../design/Measure';
import { isZero, longDate, money, newKey, plain, shortDate } from '../design/format';
import { whyOpen } from '../design/reasons';
import { Refusal } from '../design/States';
import { WhyFigure } from '../design/Why';
import { SendDialog } from '../letters/SendDialog';
import { CreditDialog } from './CreditDialog';
import { More } from './More';
import { Paper } from './Paper';
import { PaymentDialog, UndoDialog } from './PaymentDialog';
import { useTitle } from '../design/useTitle';

const ways: Record<string, string> = { CARD: 'card', TRANSFER: 'transfer', CASH: 'cash', CHEQUE: 'cheque' };

function Payments({ id }: { id: number }) {
  const payments = useQuery({
    queryKey: ['invoice', id, 'payments'],
    queryFn: () => data(api.GET('/api/invoices/{id}/payments', { params: { path: { id } } })),
  });
  const [undoing, setUndoing] = useState<Schemas['Payment'] | null>(null);
  if (!payments.data?.length) return null;
  return (
    <>
      <h2>Received</h2>
      <ul className="list">
        {payments.data.map((p) => (
          <li key={p.id}>
            <span className="when">{shortDate(p.valueOn)}</span>
            <span className="grow">
              <span style={p.undoneOn ? { textDecoration: 'line-through' } : undefined}>
                {plain(p.amount)} by {ways[p.way]}
                {p.card ? `, ${p.card}` : ''}
                {p.reference ? `, reference ${p.reference}` : ''}
              </span>
              {p.undoneOn && <span className="faded"> undone: {p.undoneWhy}</span>}
              {!isZero(p.fee) && <span className="faded"> · processing fee {plain(p.fee)}</span>}
            </span>
            {p.way !== 'CARD' && !p.undoneOn && (
              <button type="button" className="link" onClick={() => setUndoing(p)}>
                Undo
              </button>
            )}
          </li>
        ))}
      </ul>
      {undoing && <UndoDialog payment={undoing} onClose={() => setUndoing(null)} />}
    </>
  );
}

/** Late fees on the invoice, each with its reason; one that stands can be waived. And a mute of this invoice alone. */
function Fees({ id }: { id: number }) {
  const path = { params: { path: { id } } };
  const queries = useQueryClient();
  const [waiving, setWaiving] = useState<number | null>(null);
  const [reason, setReason] = useState('');
  const chasing = useQuery({
    queryKey: ['invoice', id, 'chasing'],
    queryFn: () => data(api.GET('/api/invoices/{id}/chasing', path)),
  });
  const waive = useMutation({
    mutationFn: (fee: number) =>
      data(api.POST('/api/late-fees/{id}/waiving', { params: { path: { id: fee } }, body: { reason } })),
    onSuccess: () => {
      setWaiving(null);
      setReason('');
      void queries.invalidateQueries();
    },
  });
  const mute = useMutation({
    mutationFn: (until: string) => data(api.PUT('/api/invoices/{id}/mute', { ...path, body: { until } })),
    onSuccess: () => void queries.invalidateQueries(),
  });
  const c = chasing.data;
  if (!c) return null;
  return (
    <>
      {c.fees.length > 0 && (
        <>
          <h2>Late fees</h2>
          <ul className="list">
            {c.fees.map((f) => (
              <li key={f.id}>
                <span className="when">{shortDate(f.chargedOn)}</span>
                <span className="grow">
                  <WhyFigure text={money(f.amount)} why={f.why} />
                  {f.waivedOn && (
                    <span className="faded">
                      {' '}
                      waived {shortDate(f.waivedOn)}: {f.waivedWhy}
                    </span>
                  )}
                  {waiving === f.id && (
                    <TextInput
                      size="xs"
                      label="Why is it waived?"
                      value={reason}
                      error={problemOf(waive.error, 'reason')}
                      onChange={(e) => setReason(e.currentTarget.value)}
                    />
                  )}
                  <Refusal error={problemOf(waive.error, 'reason') ? null : waive.error} />
                </span>
                {!f.waivedOn && (
                  <button
                    type="button"
                    className="link"
                    onClick={() => (waiving === f.id ? waive.mutate(f.id) : setWaiving(f.id))}
                  >
                    {waiving === f.id ? 'Waive it' : 'Waive'}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>Reminders</h2>
      <div>
        {c.mutedUntil && <p>No reminders about this invoice until {longDate(c.mutedUntil)}.</p>}
        <MuteField key={c.mutedUntil ?? ''} until={c.mutedUntil ?? null} mute={mute} />
      </div>
    </>
  );
}

const messagesOf = (id: number) => ({
  queryKey: ['invoice', id, 'messages'],
  queryFn: () => data(api.GET('/api/invoices/{id}/messages', { params: { path: { id } } })),
});

function Messages({ id }: { id: number }) {
  const messages = useQuery(messagesOf(id));
  if (!messages.data?.length) return null;
  return (
    <>
      <h2>Letters</h2>
      <Correspondence messages={messages.data} />
    </>
  );
}

/** The record leaf of an issued invoice. */
export function InvoiceRecord({ invoice }: { invoice: Schemas['InvoiceView'] }) {
  const issued = invoice.issued as Schemas['Issued'];
  useTitle(`Invoice ${issued.document.number}, ${issued.document.to.name}`);
  const [paying, setPaying] = useState(false);
  const [crediting, setCrediting] = useState(false);
  const [sendKey, setSendKey] = useState<string | null>(null);
  const path = { params: { path: { id: invoice.id } } };
  const messages = useQuery(messagesOf(invoice.id));
  const never =
    messages.data !== undefined && !messages.data.some((m) => m.kind === 'invoice' && !m.calledBack);
  const voided = issued.voidedOn != null;
  const whole = issued.creditNotes.some((n) => n.whole);
  const installments = issued.measure.filter((p) => !p.fee).length;
  return (
    <div className="record">
      <div className="body">
        <Paper document={issued.document}>
          {installments > 0 && (
            <>
              <h2>{installments === 1 ? 'To be paid' : `To be paid in ${installments} installments`}</h2>
              <MeasureFigure
                parts={issued.measure}
                figure={(p) => <WhyFigure text={plain(p.amount)} why={whyOpen(invoice.id, p.id)} />}
              />
            </>
          )}
          {issued.document.lateFee && <p className="faded small">{issued.document.lateFee}</p>}
          {voided && issued.voidedOn && (
            <p className="late">Void since {longDate(issued.voidedOn)}: nothing is to be paid.</p>
          )}
          {issued.creditNotes.map((n) => (
            <p key={n.id} className="late">
              {n.whole ? 'Taken back' : `${money(n.total)} taken back`} by{' '}
              <Link to={`/invoices/${invoice.id}/credit-notes/${n.id}`}>credit note {n.number}</Link> on{' '}
              {shortDate(n.issuedOn)}: {n.reason}.
            </p>
          ))}
          {issued.files.length > 0 && (
            <p className="small">
              Files:{' '}
              {issued.files.map((f, i) => (
                <span key={f.id}>
                  {i > 0 && ', '}
                  <a href={`/api/invoices/${invoice.id}/attachments/${f.id}`}>{f.name}</a>
                  {f.sent ? '' : ' (not sent along)'}
                </span>
              ))}
            </p>
          )}
        </Paper>
        <aside className="aside" aria-label="What has happened">
          {never && !voided && <p className="soon">Issued, not sent yet.</p>}
          <Payments id={invoice.id} />
          <Fees id={invoice.id} />
          <Messages id={invoice.id} />
          {issued.memo && (
            <>
              <h2>Memo, for you alone</h2>
              <p className="pre">{issued.memo}</p>
            </>
          )}
          {invoice.earlier.map((e) => (
            <details key={e.takenBackOn + e.why}>
              <summary>
                What it said before {shortDate(e.takenBackOn)} ({e.why})
              </summary>
              <Paper document={e.document} />
            </details>
          ))}
          <h2>What has happened</h2>
          <ul className="list">
            {invoice.happenings.map((h) => (
              <li key={h.id}>
                <span className="when">{shortDate(h.on)}</span>
                <span className="grow">
                  {h.what} <span className="faded">· {h.who}</span>
                </span>
              </li>
            ))}
          </ul>
        </aside>
      </div>
      <div className="foot">
        <Link className="link back" to="/invoices">
          All invoices
        </Link>
        <span className="figure">
          <small>Open</small>
          <b>
            {issued.measure.length ? (
              <WhyFigure text={money(issued.open)} why={whyOpen(invoice.id)} />
            ) : (
              money(issued.open)
            )}
          </b>
        </span>
        {invoice.clientId != null && (
          <Link className="link" to={`/clients/${invoice.clientId}`}>
            The client’s account
          </Link>
        )}
        <a className="link" href={`/api/invoices/${invoice.id}/pdf`} target="_blank" rel="noreferrer">
          PDF
        </a>
        <div className="acts">
          <More invoice={invoice} voided={voided} />
          {!whole && !voided && (
            <Button variant="outline" onClick={() => setCrediting(true)}>
              Credit…
            </Button>
          )}
          {!voided && (
            <Button variant="outline" onClick={() => setSendKey(newKey())}>
              {never ? 'Send…' : 'Send again…'}
            </Button>
          )}
          {!whole && !voided && <Button onClick={() => setPaying(true)}>Record a payment</Button>}
        </div>
      </div>
      {sendKey !== null && (
        <SendDialog
          title={`Send invoice ${issued.document.number}`}
          action={never ? 'Send' : 'Send again'}
          look={(slip) =>
            data(api.POST('/api/invoices/{id}/letter', { ...path, body: { version: 0, slip } }))
          }
          send={(slip) =>
            data(api.POST('/api/invoices/{id}/sendings', { ...path, body: { key: sendKey, slip } }))
          }
          onClose={() => setSendKey(null)}
        />
      )}
      {paying && invoice.clientId != null && (
        <PaymentDialog
          clientId={invoice.clientId}
          invoiceId={invoice.id}
          currency={issued.document.currency}
          suggested={issued.open.amount}
          onClose={() => setPaying(false)}
        />
      )}
      {crediting && <CreditDialog invoice={invoice} onClose={() => setCrediting(false)} />}
    </div>
  );
}
