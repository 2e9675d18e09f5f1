import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { MeasureFigure } from '../design/Measure';
import { isZero, money, newKey, plain, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { type Asked, WhyNote } from '../design/Why';
import { CreditDialog } from './CreditDialog';
import { Paper } from './Paper';
import { PaymentDialog, UndoDialog } from './PaymentDialog';

const ways: Record<string, string> = { CARD: 'card', TRANSFER: 'transfer', CASH: 'cash', CHEQUE: 'cheque' };

const tone: Record<string, string> = { sent: 'got', uncertain: 'late', failed: 'late' };

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

function Messages({ id }: { id: number }) {
  const messages = useQuery({
    queryKey: ['invoice', id, 'messages'],
    queryFn: () => data(api.GET('/api/invoices/{id}/messages', { params: { path: { id } } })),
  });
  if (!messages.data?.length) return null;
  return (
    <>
      <h2>Letters</h2>
      <ul className="list">
        {messages.data.map((m) => (
          <li key={m.id}>
            <span className="when">{shortDate(m.madeOn)}</span>
            <span className="grow">
              {m.kind}
              <span className={tone[m.state]}> {m.state}</span>
              {m.error && <span className="faded"> {m.error}</span>}
            </span>
            <a className="link" href={`/api/messages/${m.id}/html`} target="_blank" rel="noreferrer">
              Read
            </a>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The record leaf of an issued invoice. */
export function InvoiceRecord({ invoice }: { invoice: Schemas['InvoiceView'] }) {
  const issued = invoice.issued as Schemas['Issued'];
  const [asked, setAsked] = useState<Asked | null>(null);
  const [paying, setPaying] = useState(false);
  const [crediting, setCrediting] = useState(false);
  const sendKey = useRef(newKey());
  const send = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/invoices/{id}/sendings', {
          params: { path: { id: invoice.id } },
          body: { key: sendKey.current },
        }),
      ),
    onSuccess: () => {
      sendKey.current = newKey();
      notifications.show({
        message: 'It is on its way again.',
        closeButtonProps: { 'aria-label': 'Close' },
      });
    },
  });
  const copy = async () => {
    await navigator.clipboard.writeText(issued.link).catch(() => undefined);
    notifications.show({
      title: 'The link to the client’s page is copied',
      message: issued.link,
      closeButtonProps: { 'aria-label': 'Close' },
    });
  };
  const note = issued.creditNote;
  return (
    <div className="record">
      <div className="body">
        <Paper document={issued.document} onAsk={setAsked}>
          <h2>
            {issued.measure.length === 1 ? 'To be paid' : `Paid in ${issued.measure.length} installments`}
          </h2>
          <MeasureFigure parts={issued.measure} />
          {note && (
            <p className="late">
              Taken back by credit note {note.number} on {shortDate(note.issuedOn)}: {note.reason}.{' '}
              <a href={`/api/invoices/${invoice.id}/credit-note/pdf`}>Its PDF</a>
            </p>
          )}
        </Paper>
        <aside className="aside" aria-label="What has happened">
          {asked && <WhyNote asked={asked} />}
          <Payments id={invoice.id} />
          <Messages id={invoice.id} />
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
          <b>{money(issued.open)}</b>
        </span>
        {invoice.clientId != null && (
          <Link className="link" to={`/clients/${invoice.clientId}`}>
            The client’s account
          </Link>
        )}
        <a className="link" href={`/api/invoices/${invoice.id}/pdf`} target="_blank" rel="noreferrer">
          PDF
        </a>
        <button type="button" className="link" onClick={() => void copy()}>
          Copy the link
        </button>
        <Refusal error={send.error} />
        <div className="acts">
          {!note && (
            <Button variant="outline" onClick={() => setCrediting(true)}>
              Take back
            </Button>
          )}
          <Button variant="outline" loading={send.isPending} onClick={() => send.mutate()}>
            Send again
          </Button>
          {!note && <Button onClick={() => setPaying(true)}>Record a payment</Button>}
        </div>
      </div>
      {paying && invoice.clientId != null && (
        <PaymentDialog
          clientId={invoice.clientId}
          invoiceId={invoice.id}
          suggested={issued.open.amount}
          onClose={() => setPaying(false)}
        />
      )}
      {crediting && <CreditDialog invoice={invoice} onClose={() => setCrediting(false)} />}
    </div>
  );
}
