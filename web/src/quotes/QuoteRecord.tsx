import { Button, Menu } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { copyLink } from '../design/copyLink';
import { isZero, longDate, money, newKey, plain, shortDate } from '../design/format';
import { MeasureFigure } from '../design/Measure';
import { Refusal } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { AskDialog } from '../invoices/AskDialog';
import { Asked } from '../invoices/Asked';
import { Paper } from '../invoices/Paper';
import { PaymentDialog } from '../invoices/PaymentDialog';
import { LinkDialog } from '../letters/LinkDialog';
import { SendDialog } from '../letters/SendDialog';
import { CollectDialog } from '../moneyin/CollectDialog';
import { AnswerDialog } from './AnswerDialog';
import { BillDialog } from './BillDialog';
import { LedTo } from './LedTo';
import { DocumentWays } from '../ways/DocumentWays';
import css from './Quotes.module.css';

type Issued = Schemas['QuoteIssued'];

function Answered({ issued: i }: { issued: Issued }) {
  const { answer } = i;
  if (!answer)
    return (
      <p className={i.state === 'expired' ? 'soon' : ''}>
        {i.state === 'expired'
          ? `It held until ${longDate(i.validUntil)}; nobody can accept it any more.`
          : i.state === 'void'
            ? i.leadsTo.supersededBy
              ? 'A later version took its place.'
              : 'It was withdrawn.'
            : `It holds until ${longDate(i.validUntil)}.`}{' '}
        {i.leadsTo.supersededBy && (
          <Link className="link" to={`/quotes/${i.leadsTo.supersededBy}`}>
            See that one
          </Link>
        )}
      </p>
    );
  return (
    <p className={answer.accepted ? css.accepted : ''}>
      {answer.accepted ? 'Accepted' : 'Declined'} {shortDate(answer.on)}, {answer.at}, by <b>{answer.name}</b>
      {answer.byHand ? ', noted by hand' : answer.address ? `, from ${answer.address}` : ''}.
      {answer.reason && <span className="pre"> “{answer.reason}”</span>}
    </p>
  );
}

function Questions({ questions }: { questions: Schemas['QuestionView'][] }) {
  const queries = useQueryClient();
  const seeTo = useMutation({
    mutationFn: (question: number) =>
      data(api.POST('/api/quotes/questions/{question}/seeing-to', { params: { path: { question } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (questions.length === 0) return null;
  return (
    <>
      <h2>Asked on its page</h2>
      <ul className={css.list}>
        {questions.map((q) => (
          <li key={q.id}>
            <span className="faded small">{shortDate(q.on)}</span> <span className="pre">{q.text}</span>{' '}
            {q.seenToOn ? (
              <span className="faded small">seen to {shortDate(q.seenToOn)}</span>
            ) : (
              <button type="button" className="link" onClick={() => seeTo.mutate(q.id)}>
                I have answered
              </button>
            )}
          </li>
        ))}
      </ul>
      <Refusal error={seeTo.error} />
    </>
  );
}

/** The record leaf of an issued quote. */
export function QuoteRecord({ quote, issued }: { quote: Schemas['QuoteView']; issued: Issued }) {
  const { id } = quote;
  const { number } = issued.document;
  useTitle(`Quote ${number}, ${quote.clientName}`);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const narrow = useOneLeaf();
  const [answering, setAnswering] = useState<boolean | null>(null);
  const [sendKey, setSendKey] = useState<string | null>(null);
  const [linking, setLinking] = useState(false);
  const [billing, setBilling] = useState(false);
  const [asking, setAsking] = useState(false);
  const [paying, setPaying] = useState(false);
  const path = { params: { path: { id } } };
  const open = issued.state === 'open';
  const accepted = issued.state === 'accepted';
  const [collecting, setCollecting] = useState(false);
  const askable = issued.leadsTo.askable && !isZero(issued.leadsTo.askable) ? issued.leadsTo.askable : null;
  const billable = issued.leadsTo.left !== null && !isZero(issued.leadsTo.left);
  const waits = open || issued.state === 'expired';
  const go = async (to: string) => {
    await queries.invalidateQueries();
    void navigate(to);
  };
  const revise = useMutation({
    mutationFn: () => data(api.POST('/api/quotes/{id}/revision', path)),
    onSuccess: (draft) => go(`/quotes/${draft.id}`),
  });
  const duplicate = useMutation({
    mutationFn: () => data(api.POST('/api/quotes/{id}/duplicate', path)),
    onSuccess: (draft) => go(`/quotes/${draft.id}`),
  });
  const withdraw = useMutation({
    mutationFn: () => data(api.POST('/api/quotes/{id}/withdrawal', { ...path, body: { reason: '' } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const refused = revise.error ?? duplicate.error ?? withdraw.error;
  const left = issued.answer ? [] : issued.options.filter((o) => !o.ticked);
  return (
    <div className="record">
      <div className="body">
        {narrow && (
          <Link className="link" to="/quotes">
            All quotes
          </Link>
        )}
        <Paper document={issued.document}>
          {left.length > 0 && (
            <>
              <h2>If the client likes</h2>
              <ul className={css.list}>
                {left.map((o) => (
                  <li key={o.place} className={css.option}>
                    <span>{o.description}</span>
                    <span className="money">{plain(o.net)}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          {issued.measure.length > 0 && (
            <>
              <h2>How it is to be paid</h2>
              <MeasureFigure parts={issued.measure} />
            </>
          )}
          {issued.conditions && (
            <>
              <h2>Terms and conditions</h2>
              {/* Made safe by the server before it was kept. */}
              <div className="small" dangerouslySetInnerHTML={{ __html: issued.conditions }} />
            </>
          )}
        </Paper>
        <aside className="aside" aria-label="How it stands, and what has happened">
          <h2>How it stands</h2>
          <Answered issued={issued} />
          <LedTo leadsTo={issued.leadsTo} />
          {issued.leadsTo.missing && !isZero(issued.leadsTo.missing) && <DocumentWays id={id} />}
          <Asked id={id} />
          {quote.supersedesId && (
            <p className="small">
              It took the place of{' '}
              <Link className="link" to={`/quotes/${quote.supersedesId}`}>
                an earlier version
              </Link>
              .
            </p>
          )}
          <Questions questions={issued.questions} />
          {issued.memo && (
            <>
              <h2>Private note</h2>
              <p className="pre">{issued.memo}</p>
            </>
          )}
          <h2>What has happened</h2>
          <ol className={css.list}>
            {quote.past.map((h) => (
              <li key={h.id}>
                <span className="faded small">{shortDate(h.on)}</span> {h.what}
              </li>
            ))}
          </ol>
        </aside>
      </div>
      <div className="foot">
        <span className="figure">
          <small>Total</small>
          <b>{money(issued.document.sums.total)}</b>
        </span>
        {!narrow && quote.clientId != null && (
          <Link className="link" to={`/clients/${quote.clientId}`}>
            The client’s account
          </Link>
        )}
        <a className="link" href={`/api/quotes/${id}/pdf`} target="_blank" rel="noreferrer">
          {issued.answer?.accepted ? 'Acceptance record' : 'PDF'}
        </a>
        <Refusal error={refused} />
        <div className="acts">
          <Menu position="top-end" withinPortal>
            <Menu.Target>
              <Button variant="outline">More</Button>
            </Menu.Target>
            <Menu.Dropdown>
              {issued.leadsTo.link && (
                <Menu.Item onClick={() => void copyLink(issued.leadsTo.link)}>
                  Copy the link to its page
                </Menu.Item>
              )}
              {issued.state !== 'void' && (
                <Menu.Item onClick={() => setLinking(true)}>The link to its page…</Menu.Item>
              )}
              {accepted && <Menu.Item onClick={() => setSendKey(newKey())}>Send it again…</Menu.Item>}
              <Menu.Item onClick={() => duplicate.mutate()}>Write another like it</Menu.Item>
              {waits && <Menu.Item onClick={() => revise.mutate()}>Change it, as a later version</Menu.Item>}
              {waits && <Menu.Item onClick={() => setAnswering(true)}>Mark as accepted…</Menu.Item>}
              {waits && <Menu.Item onClick={() => setAnswering(false)}>Mark as declined…</Menu.Item>}
              {waits && <Menu.Item onClick={() => withdraw.mutate()}>Withdraw it</Menu.Item>}
              {askable && <Menu.Item onClick={() => setAsking(true)}>Ask for money…</Menu.Item>}
              {issued.answer?.accepted && billable && (
                <Menu.Item onClick={() => setCollecting(true)}>Take a card…</Menu.Item>
              )}
            </Menu.Dropdown>
          </Menu>
          {open && (
            <Button variant="outline" onClick={() => setSendKey(newKey())}>
              Send…
            </Button>
          )}
          {accepted && quote.clientId != null && (
            <Button variant="outline" onClick={() => setPaying(true)}>
              Record a payment
            </Button>
          )}
          {accepted && billable && <Button onClick={() => setBilling(true)}>Invoice…</Button>}
        </div>
      </div>
      {billing && <BillDialog id={id} number={number} onClose={() => setBilling(false)} />}
      {collecting && (
        <CollectDialog
          id={id}
          clientId={quote.clientId ?? null}
          number={issued.document.number}
          parts={[]}
          onClose={() => setCollecting(false)}
        />
      )}
      {asking && askable && (
        <AskDialog
          id={id}
          number={number}
          quote
          suggested={askable.amount}
          onClose={() => setAsking(false)}
        />
      )}
      {paying && quote.clientId != null && (
        <PaymentDialog
          clientId={quote.clientId}
          invoiceId={id}
          currency={issued.document.currency}
          suggested={(issued.leadsTo.missing ?? issued.leadsTo.left)?.amount ?? ''}
          quote
          onClose={() => setPaying(false)}
        />
      )}
      {linking && <LinkDialog id={id} number={number} onClose={() => setLinking(false)} />}
      {sendKey !== null && (
        <SendDialog
          title={`Send quote ${number}`}
          action="Send"
          look={(slip) => data(api.POST('/api/quotes/{id}/letter', { ...path, body: { version: 0, slip } }))}
          send={(slip) =>
            data(api.POST('/api/quotes/{id}/sendings', { ...path, body: { key: sendKey, slip } }))
          }
          mailOnly
          onClose={() => setSendKey(null)}
        />
      )}
      {answering !== null && (
        <AnswerDialog
          id={id}
          number={number}
          accepts={answering}
          options={issued.options}
          onClose={() => setAnswering(null)}
        />
      )}
    </div>
  );
}
