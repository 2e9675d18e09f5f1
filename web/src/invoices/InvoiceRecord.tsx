import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { MeasureFigure } from '../design/Measure';
import { isZero, longDate, money, newKey, plain, shortDate } from '../design/format';
import { whyOpen } from '../design/reasons';
import { WhyFigure } from '../design/Why';
import { SendDialog } from '../letters/SendDialog';
import { Agreed } from './Agreed';
import { AskDialog } from './AskDialog';
import { Asked } from './Asked';
import { CreditDialog } from './CreditDialog';
import { More } from './More';
import { Paper } from './Paper';
import { PaymentDialog } from './PaymentDialog';
import { timelineOf } from '../api/invoices';
import { PlanPicture } from '../reminders/PlanPicture';
import { DocumentWays } from '../ways/DocumentWays';
import { RearrangeDialog } from './RearrangeDialog';
import { Timeline } from './Timeline';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';

/** The record leaf of an issued invoice. */
export function InvoiceRecord({ invoice }: { invoice: Schemas['InvoiceView'] }) {
  const issued = invoice.issued as Schemas['Issued'];
  useTitle(`Invoice ${issued.document.number}, ${issued.document.to.name}`);
  const [paying, setPaying] = useState(false);
  const [search] = useSearchParams();
  const [crediting, setCrediting] = useState(search.get('do') === 'credit');
  const [rearranging, setRearranging] = useState(false);
  const [asking, setAsking] = useState(false);
  const toCome = issued.measure.some((p) => p.kind === 'INSTALLMENT' && !isZero(p.open));
  const [sendKey, setSendKey] = useState<string | null>(null);
  const narrow = useOneLeaf();
  const path = { params: { path: { id: invoice.id } } };
  const timeline = useQuery(timelineOf(invoice.id));
  // A deposit invoice goes along with the receipt of its money.
  const never = (timeline.data?.neverSent ?? false) && issued.document.kind !== 'deposit invoice';
  const voided = issued.voidedOn != null;
  const whole = issued.creditNotes.some((n) => n.whole);
  const installments = issued.measure.filter((p) => p.kind !== 'LATE_FEE').length;
  return (
    <div className="record">
      <div className="body">
        {narrow && (
          <Link className="link" to="/invoices">
            All invoices
          </Link>
        )}
        <Paper document={issued.document} asks={!issued.voidedOn && !isZero(issued.open)}>
          {installments > 0 && (
            <>
              <h2>{installments === 1 ? 'To be paid' : `To be paid in ${installments} installments`}</h2>
              <MeasureFigure
                parts={issued.measure}
                figure={(p) => <WhyFigure text={plain(p.amount)} why={whyOpen(invoice.id, p.id)} />}
              />
            </>
          )}
          {issued.document.paying.lateFee && <p className="faded small">{issued.document.paying.lateFee}</p>}
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
        <aside className="aside" aria-label="What will happen, and what has">
          {never && !voided && <p className="soon">Issued, not sent yet.</p>}
          <Timeline id={invoice.id}>
            {!voided && !isZero(issued.open) && (
              <>
                <Asked id={invoice.id} />
                <Agreed id={invoice.id} />
                <PlanPicture id={invoice.id} />
                <DocumentWays id={invoice.id} />
              </>
            )}
          </Timeline>
          {issued.memo && (
            <>
              <h2>Private note</h2>
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
        </aside>
      </div>
      <div className="foot">
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
        {!narrow && invoice.clientId != null && (
          <Link className="link" to={`/clients/${invoice.clientId}`}>
            The client’s account
          </Link>
        )}
        {!narrow && (
          <a className="link" href={`/api/invoices/${invoice.id}/pdf`} target="_blank" rel="noreferrer">
            PDF
          </a>
        )}
        <div className="acts">
          <More
            invoice={invoice}
            voided={voided}
            narrow={narrow}
            onCredit={whole || voided ? null : () => setCrediting(true)}
            onRearrange={toCome && !voided ? () => setRearranging(true) : null}
            onAsk={!voided && !isZero(issued.open) ? () => setAsking(true) : null}
          />
          {!narrow && !whole && !voided && (
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
          later
          given={{ id: invoice.id, number: issued.document.number, link: issued.link }}
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
      {asking && (
        <AskDialog
          id={invoice.id}
          number={issued.document.number}
          quote={false}
          suggested={issued.open.amount}
          onClose={() => setAsking(false)}
        />
      )}
      {rearranging && (
        <RearrangeDialog
          id={invoice.id}
          number={issued.document.number}
          measure={issued.measure}
          reachable={issued.document.to.email !== ''}
          onClose={() => setRearranging(false)}
        />
      )}
      {crediting && <CreditDialog invoice={invoice} onClose={() => setCrediting(false)} />}
    </div>
  );
}
