import { TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Refusal } from '../design/States';
import { SendDialog } from '../letters/SendDialog';
import { plainSlip } from '../letters/slip';
import css from './Today.module.css';

type Need = Schemas['Need'];
type Deed =
  | 'answered'
  | 'be'
  | 'given'
  | 'retry'
  | 'set-aside'
  | 'noted'
  | 'waive'
  | 'stand'
  | 'charge'
  | 'leave'
  | 'seen';

const actOf = (need: Need) => ({ key: need.key ?? '', clientId: need.clientId ?? 0 });

async function decide(need: Need, what: Deed, reason: string): Promise<void> {
  const path = { params: { path: { id: need.id } } };
  const act = actOf(need);
  if (what === 'retry')
    await data(api.POST('/api/messages/{id}/retry', { ...path, body: { to: reason || null } }));
  else if (what === 'set-aside') await data(api.POST('/api/messages/{id}/set-aside', path));
  else if (what === 'answered')
    await data(
      api.POST('/api/quotes/questions/{question}/seeing-to', { params: { path: { question: need.id } } }),
    );
  else if (what === 'given') await data(api.POST('/api/invoices/{id}/giving', path));
  else if (what === 'noted') await data(api.POST('/api/payments/{id}/noted', path));
  else if (what === 'seen' && need.kind === 'planned')
    await data(api.POST('/api/planned-payments/{id}/seen', path));
  else if (what === 'seen') await data(api.POST('/api/refunds/{id}/noted', path));
  else if (what === 'waive')
    await data(api.POST('/api/late-fees/{id}/waiving', { ...path, body: { reason } }));
  else if (what === 'stand') await data(api.POST('/api/late-fees/{id}/standing', path));
  else if (what === 'be') await data(api.POST('/api/acts/letting-be', { body: act }));
  else if (what === 'charge')
    await data(api.POST('/api/acts/doing-now', { body: { ...act, slip: plainSlip } }));
  else await data(api.POST('/api/acts/leaving-out', { body: { ...act, reason } }));
}

const paidInTime = 'paid in time; the payment was recorded later';

function NeedItem({ need }: { need: Need }) {
  const [reason, setReason] = useState(need.kind === 'fee' ? paidInTime : '');
  const [looking, setLooking] = useState(false);
  const act = useMutation({ mutationFn: (what: Deed) => decide(need, what, reason) });
  const deed = (what: Deed, words: ReactNode) => (
    <button type="button" className="link" disabled={act.isPending} onClick={() => act.mutate(what)}>
      {words}
    </button>
  );
  /** One key waives: W, wherever the focus stands within this need but in its field. */
  const key = (event: KeyboardEvent) => {
    const typing = (event.target as HTMLElement).tagName === 'INPUT';
    if (
      need.kind === 'fee' &&
      !typing &&
      event.key.toLowerCase() === 'w' &&
      !event.ctrlKey &&
      !event.metaKey
    ) {
      event.preventDefault();
      event.stopPropagation();
      act.mutate('waive');
    }
  };
  const asksWhy = need.kind === 'fee' || need.kind === 'review';
  return (
    <li onKeyDown={key} data-need={need.kind}>
      <span className="grow">
        <b>{need.title}</b>
        <br />
        <span className="faded">{need.text}</span>
        {asksWhy && (
          <TextInput
            size="xs"
            mt={4}
            aria-label={need.kind === 'fee' ? 'Reason for waiving' : 'Reason, if it is not charged'}
            placeholder={need.kind === 'fee' ? 'Reason for waiving' : 'Reason, if it is not charged'}
            value={reason}
            error={problemOf(act.error, 'reason')}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
        )}
        {need.kind === 'undelivered' && (
          <TextInput
            size="xs"
            mt={4}
            aria-label="The right address"
            placeholder="The right address, if it was wrong; it is kept with the client"
            value={reason}
            error={problemOf(act.error, 'to')}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
        )}
        <Refusal error={problemOf(act.error, 'reason') || problemOf(act.error, 'to') ? null : act.error} />
      </span>
      <span className={`right ${css.deeds}`}>
        {need.kind === 'fee' && (
          <>
            {deed(
              'waive',
              <>
                Waive <kbd>W</kbd>
              </>,
            )}
            {deed('stand', 'It stands')}
          </>
        )}
        {need.kind === 'review' && (
          <>
            {deed('charge', 'Charge it')}
            {deed('leave', 'Do not charge')}
          </>
        )}
        {(need.kind === 'message' || need.kind === 'undelivered') && (
          <>
            {deed('retry', reason && need.kind === 'undelivered' ? 'Mend, and send again' : 'Send it again')}
            {deed('set-aside', 'Set aside')}
          </>
        )}
        {need.kind === 'payment' && deed('noted', 'Seen')}
        {(need.kind === 'refund' || need.kind === 'planned') && deed('seen', 'Seen')}
        {need.kind === 'untaxed' && (
          <Link className="link" to={`/money-in/payment-${need.id}`}>
            Make its invoice
          </Link>
        )}
        {(need.kind === 'payment' || need.kind === 'dispute') && (
          <Link className="link" to={`/money-in/payment-${need.id}`}>
            {need.kind === 'dispute' ? 'Answer' : 'Open'}
          </Link>
        )}
        {need.kind === 'kept' && (
          <>
            <button type="button" className="link" onClick={() => setLooking(true)}>
              Send after all…
            </button>
            {deed('be', 'Let it be')}
          </>
        )}
        {need.kind === 'unsent' && deed('given', 'Given otherwise')}
        {need.kind === 'question' && deed('answered', 'I have answered')}
        {need.quoteId != null && (
          <Link className="link" to={`/quotes/${need.quoteId}`}>
            Open
          </Link>
        )}
        {['address', 'unanswered', 'kept', 'card-ends'].includes(need.kind) && need.clientId != null ? (
          <Link className="link" to={`/clients/${need.clientId}`}>
            {need.kind === 'address' ? 'Add it' : 'Open account'}
          </Link>
        ) : (
          need.invoiceId != null && (
            <Link className="link" to={`/invoices/${need.invoiceId}`}>
              Open
            </Link>
          )
        )}
      </span>
      {looking && (
        <SendDialog
          title={need.title}
          action="Send after all"
          look={(slip) => data(api.POST('/api/acts/letter', { body: { ...actOf(need), slip } }))}
          send={(slip) => data(api.POST('/api/acts/doing-now', { body: { ...actOf(need), slip } }))}
          onClose={() => setLooking(false)}
        />
      )}
    </li>
  );
}

/** What only a person can decide. */
export function NeedsYou({ needs }: { needs: Need[] }) {
  return (
    <section aria-label="Needs you">
      <div className="part-head">
        <h2>Needs you</h2>
        <span className="faded small">{needs.length || ''}</span>
      </div>
      {needs.length ? (
        <ul className="list">
          {needs.map((n) => (
            <NeedItem key={`${n.kind}-${n.id}-${n.key ?? ''}`} need={n} />
          ))}
        </ul>
      ) : (
        <p className="faded">Nothing waits for you.</p>
      )}
    </section>
  );
}
