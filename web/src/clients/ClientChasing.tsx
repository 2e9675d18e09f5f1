import { Button, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { dayAndHour, longDate, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { useCallingBack } from '../letters/Leaving';
import { LateFeeFields, noLateFee, policyInMark } from '../settings/LateFeeFields';
import { business as businessQuery } from '../api/business';
import css from './ClientChasing.module.css';
import { chasingOf, clientPlan, messagesOf } from '../api/clients';
import { KeepBack } from '../today/KeepBack';
import { SavedMethods } from './SavedMethods';
import { ClientWays } from '../ways/ClientWays';
import { PlanSelect } from '../reminders/PlanSelect';
import { Dialog } from '../design/Dialog';

/** A day up to which no reminder goes. Empty takes the mute away. */
export function MuteField({
  until,
  mute,
}: {
  until: string | null;
  mute: { mutate: (until: string) => void; error: unknown; isPending: boolean };
}) {
  const [day, setDay] = useState(until ? longDate(until) : '');
  return (
    <span className={`mute ${css.mute}`}>
      <TextInput
        size="xs"
        label="No reminders until"
        placeholder="31 March, or +14"
        value={day}
        error={problemOf(mute.error, 'until')}
        onChange={(e) => setDay(e.currentTarget.value)}
      />
      <button type="button" className="link" disabled={mute.isPending} onClick={() => mute.mutate(day)}>
        Mute
      </button>
      {until && (
        <button
          type="button"
          className="link"
          onClick={() => {
            setDay('');
            mute.mutate('');
          }}
        >
          Remind again
        </button>
      )}
    </span>
  );
}

function OwnPolicy({
  id,
  policy,
  onClose,
}: {
  id: number;
  policy: Schemas['TypedLateFeePolicy'] | null;
  onClose: () => void;
}) {
  const [own, setOwn] = useState(policy ? policyInMark(policy) : noLateFee);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: (lateFee: Schemas['TypedLateFeePolicy'] | null) =>
      data(api.PUT('/api/clients/{id}/late-fees', { params: { path: { id } }, body: { lateFee } })),
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  });
  return (
    <div className="form">
      <p className="faded" style={{ margin: 0 }}>
        For invoices issued to this client from now on.
      </p>
      <LateFeeFields value={own} onChange={setOwn} error={save.error} path="lateFee." />
      <Refusal error={save.error} />
      <div style={{ display: 'flex', gap: 12 }}>
        <Button loading={save.isPending} onClick={() => save.mutate(own)}>
          Keep it
        </Button>
        <Button variant="outline" onClick={() => save.mutate(null)}>
          As the business
        </Button>
      </div>
    </div>
  );
}

/** So many letters are seen at a glance. */
const FEW = 4;

/** What holds for one client: muted, kept back, its own late fees; and all letters, newest first. */
export function ClientChasing({ id }: { id: number }) {
  const path = { params: { path: { id } } };
  const queries = useQueryClient();
  const [own, setOwn] = useState(false);
  const [keeping, setKeeping] = useState(false);
  const chasing = useQuery(chasingOf(id));
  const [find, setFind] = useState('');
  const [looked] = useDebouncedValue(find, 250);
  const messages = useQuery(messagesOf(id, looked));
  const again = { onSuccess: () => void queries.invalidateQueries() };
  const mute = useMutation({
    mutationFn: (until: string) => data(api.PUT('/api/clients/{id}/mute', { ...path, body: { until } })),
    ...again,
  });
  const keep = useMutation({
    mutationFn: (until: string | null) =>
      data(api.PUT('/api/clients/{id}/keeping-back', { ...path, body: { keptBack: until !== null, until } })),
    onSuccess: () => {
      setKeeping(false);
      again.onSuccess();
    },
  });
  const plan = useQuery(clientPlan(id));
  const choose = useMutation({
    mutationFn: (body: Schemas['PlanChoice']) =>
      data(api.PUT('/api/clients/{id}/reminder-plan', { ...path, body })),
    ...again,
  });
  const c = chasing.data;
  return (
    <section className={`chasing ${css.chasing}`} aria-label="Reminders and letters">
      <h2>Reminders and late fees</h2>
      {c && (
        <>
          <p style={{ margin: '6px 0' }}>
            {c.keptBack
              ? `Everything for this client is kept back${c.keptBackUntil ? ` until ${longDate(c.keptBackUntil)}` : ''}. `
              : c.mutedUntil
                ? `No reminders until ${longDate(c.mutedUntil)}. `
                : plan.data?.use === 'NONE'
                  ? 'No reminder goes. '
                  : 'Reminders go by the plan. '}
            {c.lateFee ? 'Late fees of its own. ' : 'Late fees as the business charges them. '}
            {c.remindedOn && <span className="faded">Last reminded {shortDate(c.remindedOn)}.</span>}
          </p>
          <p className="row-of-links">
            <MuteField key={c.mutedUntil ?? ''} until={c.mutedUntil ?? null} mute={mute} />
            <button
              type="button"
              className="link"
              onClick={() => (c.keptBack ? keep.mutate(null) : setKeeping(!keeping))}
            >
              {c.keptBack ? 'Let everything go' : 'Keep everything back…'}
            </button>
            <button type="button" className="link" onClick={() => setOwn(true)}>
              Late fees of its own
            </button>
          </p>
          {keeping && !c.keptBack && <KeepBack keep={keep} />}
          {plan.data && (
            <PlanSelect
              label="Reminded by the plan"
              usual="the business’s"
              choice={plan.data}
              onChoose={(chosen) => choose.mutate(chosen)}
            />
          )}
          <ClientWays id={id} />
          <Refusal error={choose.error} />
          <Refusal error={problemOf(keep.error, 'until') ? null : keep.error} />
          <Dialog opened={own} onClose={() => setOwn(false)} title="Late fees of this client">
            <OwnPolicy id={id} policy={c.lateFee ?? null} onClose={() => setOwn(false)} />
          </Dialog>
        </>
      )}
      <SavedMethods id={id} />
      <h2>Correspondence</h2>
      {(find !== '' || (messages.data?.length ?? 0) > FEW) && (
        <TextInput
          aria-label="Find in the letters"
          placeholder="Find in the letters: a word, a number, an address"
          value={find}
          onChange={(e) => setFind(e.currentTarget.value)}
        />
      )}
      {messages.data?.length ? (
        <Correspondence messages={messages.data} />
      ) : (
        <p className="faded">{looked ? 'No letter says that.' : 'No letter yet.'}</p>
      )}
    </section>
  );
}

const tone: Record<string, string> = {
  sent: 'got',
  opened: 'got',
  uncertain: 'late',
  failed: 'late',
  bounced: 'late',
};
const canBeCalledBack = ['invoice', 'reminder', 'copy'];

/** Letters, newest first. */
export function Correspondence({ messages }: { messages: Schemas['Message'][] }) {
  return (
    <ul className="list">
      {messages.map((m) => (
        <Letter key={m.id} letter={m} />
      ))}
    </ul>
  );
}

function Letter({ letter: m }: { letter: Schemas['Message'] }) {
  const business = useQuery(businessQuery);
  const own = `${business.data?.business.name ?? ''}: `;
  return (
    <li>
      <span className="when">{shortDate(m.madeOn)}</span>
      <span className="grow">
        {m.subject.replace(own, '')}
        {m.addresses.channel === 'TEXT' && <span className="faded"> by text message</span>}
        <LetterState letter={m} />{' '}
      </span>
      <LetterDeeds letter={m} />
    </li>
  );
}

/** How a letter stands. */
export function LetterState({ letter: m }: { letter: Schemas['Message'] }) {
  return (
    <>
      <span className={tone[m.state]}> {m.calledBack ? 'called back' : m.state}</span>
      {m.leaves?.at && <span className="faded"> leaves on {dayAndHour(m.leaves.at)}</span>}
      {m.error && !m.calledBack && <span className="faded"> {m.error}</span>}
    </>
  );
}

/** What can be done with a letter. */
export function LetterDeeds({ letter: m }: { letter: Schemas['Message'] }) {
  const call = useCallingBack(m.id);
  return (
    <>
      {m.state === 'waiting' && canBeCalledBack.includes(m.kind) && (
        <button type="button" className="link" disabled={call.isPending} onClick={() => call.mutate()}>
          Call back
        </button>
      )}
      <a className="link" href={`/api/messages/${m.id}/html`} target="_blank" rel="noreferrer">
        Read
      </a>
      {m.addresses.channel === 'MAIL' &&
        (m.kind === 'reminder' ||
          (['sent', 'opened', 'bounced'].includes(m.state) &&
            /^(invoice|credit note|copy)$/.test(m.kind))) && (
          <a className="link" href={`/api/messages/${m.id}/pdf`} target="_blank" rel="noreferrer">
            PDF
          </a>
        )}
      <Refusal error={call.error} />
    </>
  );
}
