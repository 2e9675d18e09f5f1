import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { copyLink } from '../design/copyLink';
import { isZero, longDate, money, plain, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { ChequeDialog } from './ChequeDialog';
import { Contest } from './Contest';
import { debtWords, MoveDialog } from './MoveDialog';
import { RefundPaymentDialog } from './RefundPaymentDialog';
import { HeldActs, PlannedActs } from './Waiting';
import { topWords } from './topWords';
import { Way } from './Way';
import css from './MoneyIn.module.css';

type Record = Schemas['MoneyRecord'];
type Payment = Schemas['Payment'];

const happened: { [kind: string]: string } = {
  REFUND: 'Given back',
  REFUND_BACK: 'Did not arrive, so it is here again:',
  RETURN: 'Came back:',
  CHARGEBACK: 'Taken back by the payer’s bank:',
  WON_BACK: 'Won back:',
};

/** How a refund through the processor stands, beside its sum. */
const refundWords: { [state in Schemas['GoingBack']['state']]: string } = {
  wanted: 'the card processor has not answered yet',
  asked: 'the card processor sends it',
  gone: 'sent by the card processor',
  refused: 'refused by the card processor',
  failed: 'it did not arrive',
};

function Later({ record: r }: { record: Record }) {
  if (r.after.later.length === 0) return null;
  return (
    <>
      <h2>What became of it</h2>
      <table className={css.lines}>
        <tbody>
          {r.after.later.map((l) => {
            const refund = r.after.refunds.find((f) => f.movementId === l.movementId);
            return (
              <tr key={l.movementId}>
                <td className={css.day}>{shortDate(l.on)}</td>
                <td>
                  {happened[l.kind] ?? l.kind} {l.kind === 'REFUND' && l.how}
                  {l.why && ` ${l.why}`}
                  {refund && (
                    <span className="faded">
                      {' '}
                      · {refundWords[refund.state]}
                      {refund.why && `: ${refund.why}`}
                    </span>
                  )}
                  {!isZero(l.cost) && <span className="late"> · cost {plain(l.cost)}</span>}
                </td>
                <td className={css.n}>{plain(l.amount)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** The payment link through which it came, with what its payer filled in. */
function FromLink({ record: r, payment: p }: { record: Record; payment: Payment | null }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { link } = r.after;
  const invoice = useMutation({
    mutationFn: () => data(api.POST('/api/payment-links/invoices', { body: { paymentId: p?.id ?? 0 } })),
    onSuccess: async (begun) => {
      await queries.invalidateQueries();
      void navigate(`/invoices/${begun.id}`);
    },
  });
  if (!link) return null;
  return (
    <>
      <h2>{link.shown ? 'Through a payment link' : 'By a card at hand, with no invoice'}</h2>
      <p style={{ margin: 0 }}>
        {link.shown ? <Link to={`/money-in/links/${link.id}`}>{link.title}</Link> : link.title}
      </p>
      {link.answers.map((a) => (
        <p key={a.label} style={{ margin: '4px 0 0' }}>
          <span className="faded">{a.label}:</span> {a.text}
        </p>
      ))}
      {link.terms && (
        <details>
          <summary className="faded small">The conditions that were accepted</summary>
          <p className={`${css.said} small`}>{link.terms}</p>
        </details>
      )}
      {p && (
        <p>
          {link.invoiceId === null ? (
            <Button variant="outline" loading={invoice.isPending} onClick={() => invoice.mutate()}>
              Make the invoice…
            </Button>
          ) : (
            <Link to={`/invoices/${link.invoiceId}`}>
              {link.invoiceNumber === 'draft' ? 'Its invoice is a draft' : `Invoice ${link.invoiceNumber}`}
            </Link>
          )}
        </p>
      )}
      <Refusal error={invoice.error} />
    </>
  );
}

function Settled({ record: r, payment: p }: { record: Record; payment: Payment | null }) {
  return (
    <>
      <h2>{p ? 'What it settles' : 'What it is for'}</h2>
      {r.settled.length === 0 ? (
        <p className="faded">
          {p?.held && r.after.link
            ? `Nothing that was open: it was paid for what stands above. Its invoice will deduct ${
                isZero(p.back.amount) ? 'it' : 'what did not go back'
              }.`
            : p?.held
              ? 'Nothing by itself: it is held as a deposit for work to come.'
              : 'Nothing now: it went back, or is client credit.'}
        </p>
      ) : (
        <table className={css.lines}>
          <tbody>
            {r.settled.map((s) => (
              <tr key={s.debt}>
                <td>
                  <Link to={`/invoices/${s.document}`}>{debtWords(s)}</Link>
                </td>
                <td className={`${css.n} faded`}>
                  {isZero(s.left)
                    ? 'settled'
                    : p
                      ? `${money(s.left)} still to come`
                      : `${money(s.left)} open`}
                </td>
                <td className={css.n}>{plain(s.amount)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Books({ books }: { books: Schemas['Booking'][] }) {
  if (books.length === 0) return null;
  return (
    <>
      <h2>In the books</h2>
      <table className={css.lines}>
        <thead>
          <tr>
            <th>On</th>
            <th>Account</th>
            <th className={css.n}>Debit</th>
            <th className={css.n}>Credit</th>
          </tr>
        </thead>
        <tbody>
          {books.map((b, i) => {
            const debit = !b.amount.amount.startsWith('-');
            const sum = plain({ ...b.amount, amount: b.amount.amount.replace('-', '') });
            return (
              <tr key={i} title={b.what}>
                <td className={css.day}>{shortDate(b.on)}</td>
                <td>{b.account}</td>
                <td className={css.n}>{debit ? sum : ''}</td>
                <td className={css.n}>{debit ? '' : sum}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

function Letters({ letters }: { letters: Schemas['Message'][] }) {
  if (letters.length === 0) return null;
  return (
    <>
      <h2>Letters</h2>
      <table className={css.lines}>
        <tbody>
          {letters.map((m) => (
            <tr key={m.id}>
              <td className={css.day}>{shortDate(m.madeOn)}</td>
              <td>
                {m.subject}, to {m.addresses.to}
              </td>
              <td className={css.n}>
                <a
                  className="link"
                  href={`/api/messages/${m.id}/html`}
                  target="_blank"
                  rel="noreferrer"
                  aria-label={`Read “${m.subject}”`}
                >
                  Read
                </a>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The processor's own number, to copy and to open there. */
function Number({ after: a }: { after: Schemas['After'] }) {
  if (!a.number) return null;
  return (
    <p className={css.number}>
      The card processor’s number: {a.number}{' '}
      <button
        type="button"
        className="link"
        onClick={() => void copyLink(a.number, 'The card processor’s number is copied')}
      >
        Copy
      </button>
      {a.openAt && ' · '}
      {a.openAt && (
        <a className="link" href={a.openAt} target="_blank" rel="noreferrer">
          Open it there
        </a>
      )}
    </p>
  );
}

function Acts({ record: r, payment: p }: { record: Record; payment: Payment }) {
  const [dialog, setDialog] = useState<'refund' | 'move' | 'cheque' | null>(null);
  const queries = useQueryClient();
  const noted = useMutation({
    mutationFn: () => data(api.POST('/api/payments/{id}/noted', { params: { path: { id: p.id } } })),
    onSuccess: () => tell('It stays client credit.'),
    onSettled: () => queries.invalidateQueries(),
  });
  const close = () => setDialog(null);
  return (
    <div className="acts">
      <Refusal error={noted.error} />
      {p.unexpected && (
        <Button variant="outline" loading={noted.isPending} onClick={() => noted.mutate()}>
          Seen
        </Button>
      )}
      {r.after.moveTo.length > 0 && (
        <Button variant="outline" onClick={() => setDialog('move')}>
          Move it…
        </Button>
      )}
      {p.means.way === 'CHEQUE' && r.after.refundMost && (
        <Button variant="outline" onClick={() => setDialog('cheque')}>
          Cheque came back…
        </Button>
      )}
      {r.after.refundMost && (
        <Button variant="outline" onClick={() => setDialog('refund')}>
          Refund…
        </Button>
      )}
      {dialog === 'refund' && <RefundPaymentDialog record={r} payment={p} onClose={close} />}
      {dialog === 'move' && <MoveDialog record={r} payment={p} onClose={close} />}
      {dialog === 'cheque' && <ChequeDialog payment={p} onClose={close} />}
    </div>
  );
}

/** What the processor kept, what is the business's, what went back: the figures under a payment. */
function Figures({
  payment: p,
  total,
  yours,
}: {
  payment: Payment;
  total: Schemas['Amount'];
  yours: string;
}) {
  return (
    <>
      <span className="figure">
        <small>Came</small>
        <b>{money(total)}</b>
      </span>
      {!isZero(p.fee) && (
        <span className="figure">
          <small>Kept by the processor</small>
          <b>{plain(p.fee)}</b>
        </span>
      )}
      {!isZero(p.back.amount) && (
        <span className="figure">
          <small>Went back</small>
          <b>{plain(p.back.amount)}</b>
        </span>
      )}
      <span className="figure">
        <small>Yours</small>
        <b>{yours}</b>
      </span>
    </>
  );
}

/** The record leaf of one payment, or of an attempt at one. */
export function MoneyRecordLeaf({ record: r }: { record: Record }) {
  const narrow = useOneLeaf();
  const { payment: p } = r;
  useTitle(`${money(r.amount)} from ${r.clientName}`);
  return (
    <div className="record">
      <div className={css.leaf}>
        <div className={css.inner}>
          {narrow && (
            <Link className="link" to="/money-in">
              All that comes in
            </Link>
          )}
          <h1>
            {money(r.amount)} from{' '}
            {r.clientId === null ? r.clientName : <Link to={`/clients/${r.clientId}`}>{r.clientName}</Link>}
          </h1>
          {p ? (
            <p className="faded">
              {longDate(p.valueOn)} · {p.means.card || p.means.way.toLowerCase().replace('_', ' ')}
              {p.means.reference && ` · reference ${p.means.reference}`}
              {p.means.payer && ` · paid by ${p.means.payer.name || p.means.payer.email}`}
            </p>
          ) : (
            <p>{r.begun}</p>
          )}
          {p?.undone && (
            <p className="late">
              Undone on {longDate(p.undone.on)}: {p.undone.why}
            </p>
          )}
          <Number after={r.after} />
          <FromLink record={r} payment={p} />
          {r.after.dispute && <Contest dispute={r.after.dispute} />}
          {r.way.length > 0 && (
            <>
              <h2>Its way</h2>
              <Way way={r.way} />
            </>
          )}
          {p?.means.extra && <p className="faded">Beside what was owed came {topWords(p.means.extra)}.</p>}
          {(p ? !p.undone : r.settled.length > 0) && <Settled record={r} payment={p} />}
          <Later record={r} />
          <Books books={r.books} />
          <Letters letters={r.letters} />
        </div>
      </div>
      {r.after.held != null && <HeldActs record={r} order={r.after.held} />}
      {r.after.takeBackOn != null && <PlannedActs record={r} on={r.after.takeBackOn} />}
      {p && (
        <div className="foot">
          <Figures payment={p} total={r.amount} yours={plain(r.after.yours ?? p.amount)} />
          <Acts record={r} payment={p} />
        </div>
      )}
    </div>
  );
}
