import { TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { business } from '../api/business';
import { LetterDeeds, LetterState, MuteField } from '../clients/ClientChasing';
import { isZero, longDate, money, plain, shortDate } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { WhyFigure } from '../design/Why';
import { ActDeeds } from '../today/ActDeeds';
import { UndoDialog } from './PaymentDialog';
import css from './Timeline.module.css';
import { timelineOf } from '../api/invoices';

/** What will happen with an invoice, then what has: one line of time, each sentence with its act. */
export function Timeline({ id, children }: { id: number; children?: ReactNode }) {
  const timeline = useQuery(timelineOf(id));
  return (
    <Loaded query={timeline} what="what has happened">
      {(t) => (
        <>
          <h2>What will happen</h2>
          {t.toCome.length === 0 ? (
            <p className="faded small">Nothing happens by itself.</p>
          ) : (
            <ol className={css.line}>
              {t.toCome.map((c) => (
                <Coming key={c.act?.key ?? `due ${c.on} ${c.what}`} coming={c} />
              ))}
            </ol>
          )}
          {(t.toCome.length > 0 || t.mutedUntil) && <Mute id={id} until={t.mutedUntil ?? null} />}
          {children}
          <h2>What has happened</h2>
          <ol className={css.line}>
            {t.past.map((e, i) => (
              <Past key={e.key} entry={e} payment={beginsWith(t.past, i)} />
            ))}
          </ol>
        </>
      )}
    </Loaded>
  );
}

function Coming({ coming: c }: { coming: Schemas['ToCome'] }) {
  const act = c.act ?? null;
  return (
    <li>
      <span className={css.when}>{shortDate(c.on)}</span>
      <p>
        {c.what}
        {': '}
        {act ? <WhyFigure text={money(act.amount)} why={act.why} /> : money(c.amount)}
        {act && <span className="faded"> · at {act.hour}</span>}
        {act?.stopped && <b className="soon"> {act.stopped}</b>}
      </p>
      {act && (
        <div className={css.deeds}>
          <ActDeeds act={act} />
        </div>
      )}
    </li>
  );
}

/** What no note of a letter says: it is still to be told how it stands. */
const unsaid = ['waiting', 'sending', 'uncertain', 'failed'];

/** The payment that an entry tells of as the first that did: when it came, not that it was undone. */
const beginsWith = (past: Schemas['TimelineEntry'][], place: number) => {
  const payment = past[place]?.payment ?? null;
  return past.slice(place + 1).some((e) => e.payment && e.payment.id === payment?.id) ? null : payment;
};

function Past({
  entry: e,
  payment,
}: {
  entry: Schemas['TimelineEntry'];
  payment: Schemas['Payment'] | null;
}) {
  const own = useQuery(business).data?.business.name;
  const letter = e.letter ?? null;
  return (
    <li>
      <span className={css.when}>{shortDate(e.on)}</span>
      <p>
        <span className={payment?.undone ? css.undone : undefined}>
          {own ? e.what.replace(`${own}: `, '') : e.what}
        </span>
        {payment?.means.reference && <span className="faded"> · reference {payment.means.reference}</span>}
        {payment && !isZero(payment.fee) && (
          <span className="faded"> · processing fee {plain(payment.fee)}</span>
        )}
        {letter && unsaid.includes(letter.state) && !letter.calledBack && <LetterState letter={letter} />}
        {e.who && <span className="faded"> · {e.who}</span>}
      </p>
      <div className={css.deeds}>
        {letter && <LetterDeeds letter={letter} />}
        {payment && <Undo payment={payment} />}
        {e.fee && <Waive fee={e.fee} />}
      </div>
    </li>
  );
}

/** A payment that a person recorded wrongly is undone; a card payment was really made. */
function Undo({ payment }: { payment: Schemas['Payment'] }) {
  const [undoing, setUndoing] = useState(false);
  if (!payment.means.byHand || payment.undone) return null;
  return (
    <>
      <button type="button" className="link" onClick={() => setUndoing(true)}>
        Undo
      </button>
      {undoing && <UndoDialog payment={payment} onClose={() => setUndoing(false)} />}
    </>
  );
}

function Waive({ fee }: { fee: Schemas['FeeView'] }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const waive = useMutation({
    mutationFn: () =>
      data(api.POST('/api/late-fees/{id}/waiving', { params: { path: { id: fee.id } }, body: { reason } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (fee.waived) return null;
  return (
    <>
      {asking && (
        <TextInput
          size="xs"
          label="Why is it waived?"
          value={reason}
          error={problemOf(waive.error, 'reason')}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
      )}
      <button type="button" className="link" onClick={() => (asking ? waive.mutate() : setAsking(true))}>
        {asking ? 'Waive it' : 'Waive'}
      </button>
      <Refusal error={problemOf(waive.error, 'reason') ? null : waive.error} />
    </>
  );
}

function Mute({ id, until }: { id: number; until: string | null }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const mute = useMutation({
    mutationFn: (day: string) =>
      data(api.PUT('/api/invoices/{id}/mute', { params: { path: { id } }, body: { until: day } })),
    onSuccess: () => {
      setOpen(false);
      void queries.invalidateQueries();
    },
  });
  return (
    <div className={css.mute}>
      {until && <p>No reminders about this invoice until {longDate(until)}.</p>}
      {open || until ? (
        <MuteField key={until ?? ''} until={until} mute={mute} />
      ) : (
        <button type="button" className="link small" onClick={() => setOpen(true)}>
          No reminders for a while…
        </button>
      )}
    </div>
  );
}
