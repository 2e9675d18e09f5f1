import { Button } from '@mantine/core';
import { useQueries, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { api, data, messageOf, type Schemas } from '../api/client';
import { DayField } from '../design/DayField';
import { newKey } from '../design/format';
import { plainSlip } from '../letters/slip';
import css from './lists.module.css';
import letters from '../letters/Letters.module.css';
import { Dialog } from '../design/Dialog';

type Listed = Schemas['ListedInvoice'];
type Deed = 'send' | 'remind' | 'mute';

const words: Record<Deed, { title: string; act: string }> = {
  send: { title: 'Send several invoices', act: 'Send' },
  remind: { title: 'Remind of several invoices', act: 'Remind' },
  mute: { title: 'No reminders about several invoices', act: 'Mute' },
};

/** What can be done to several invoices at once. */
export function Several({ invoices, onNone }: { invoices: Listed[]; onNone: () => void }) {
  const [deed, setDeed] = useState<Deed | null>(null);
  const ids = invoices.map((i) => i.id).join(',');
  const drafts = invoices.some((i) => i.how === 'draft');
  return (
    <div className={css.bar} role="region" aria-label="What to do with those chosen">
      <span>
        <b>{invoices.length}</b> chosen
      </span>
      <button type="button" className="link" onClick={() => setDeed('send')}>
        Send…
      </button>
      <button type="button" className="link" onClick={() => setDeed('remind')}>
        Remind…
      </button>
      <button type="button" className="link" onClick={() => setDeed('mute')}>
        No reminders for a while…
      </button>
      {drafts ? (
        <span className="faded">Drafts cannot be printed yet.</span>
      ) : (
        <a className="link" href={`/api/invoices/pdf?ids=${ids}`} target="_blank" rel="noreferrer">
          Print as one PDF
        </a>
      )}
      <a className="link" href={`/api/invoices/list.csv?ids=${ids}`} download>
        Save these as CSV
      </a>
      <button type="button" className="link" onClick={onNone}>
        Choose none
      </button>
      {deed && <Doing deed={deed} invoices={invoices} onClose={() => setDeed(null)} />}
    </div>
  );
}

/** One thing to do, with whom it concerns; empty words where nothing can be done. */
type Job = {
  key: string;
  name: string;
  letter: string;
  to: string;
  none: string;
  run: () => Promise<unknown>;
};

/** What was done, or why it was not. */
type Done = { name: string; failed: string };

const nothing = () => Promise.resolve();

async function sending(i: Listed, key: string): Promise<Job> {
  const name = `${i.number ?? 'draft'}, ${i.clientName}`;
  const job = { key, name, letter: '', to: '', run: nothing };
  if (i.how === 'draft') return { ...job, none: 'is a draft: issue it on its sheet first' };
  if (i.how === 'void') return { ...job, none: 'is void' };
  const path = { params: { path: { id: i.id } } };
  const look = await data(
    api.POST('/api/invoices/{id}/letter', { ...path, body: { version: 0, slip: plainSlip } }),
  );
  if (!look.to) return { ...job, none: 'its client has no e-mail address' };
  return {
    ...job,
    none: '',
    letter: look.text,
    to: `${look.subject}, to ${look.to}`,
    run: () =>
      data(
        api.POST('/api/invoices/{id}/sendings', {
          ...path,
          body: { key, slip: { ...plainSlip, seen: look.seen } },
        }),
      ),
  };
}

/** The next reminder that asks for it: one letter may ask for several. */
async function reminding(i: Listed): Promise<Job> {
  const name = `${i.number ?? 'draft'}, ${i.clientName}`;
  const { toCome } = await data(api.GET('/api/invoices/{id}/timeline', { params: { path: { id: i.id } } }));
  const act = toCome.find((c) => c.act?.kind === 'reminder' && c.act.canDoNow)?.act;
  if (!act)
    return {
      key: `none ${i.id}`,
      name,
      letter: '',
      to: '',
      none: 'no reminder of it is to come',
      run: nothing,
    };
  const body = { key: act.key, clientId: act.about.clientId };
  const slip = { ...plainSlip, channel: act.way };
  const look = await data(api.POST('/api/acts/letter', { body: { ...body, slip } }));
  return {
    key: act.key,
    name: `${i.clientName}, ${act.about.what}`,
    letter: look.text,
    to: `${look.subject}, to ${look.to}`,
    none: look.to ? '' : `its client has no ${act.way === 'TEXT' ? 'telephone number' : 'e-mail address'}`,
    run: () =>
      data(api.POST('/api/acts/doing-now', { body: { ...body, slip: { ...slip, seen: look.seen } } })),
  };
}

function muting(i: Listed, until: string): Job {
  return {
    key: String(i.id),
    name: `${i.number ?? 'draft'}, ${i.clientName}`,
    letter: '',
    to: until ? `no reminders until ${until}` : '',
    none: i.how === 'draft' ? 'is a draft' : '',
    run: () => data(api.PUT('/api/invoices/{id}/mute', { params: { path: { id: i.id } }, body: { until } })),
  };
}

/** First what would be done, each letter to be read; then how far it is; then what became of each. */
function Doing({ deed, invoices, onClose }: { deed: Deed; invoices: Listed[]; onClose: () => void }) {
  const queries = useQueryClient();
  const [opened] = useState(newKey);
  const [until, setUntil] = useState('');
  const [done, setDone] = useState<Done[] | null>(null);
  const [running, setRunning] = useState(false);
  const stop = useRef(false);
  const looks = useQueries({
    queries: invoices.map((i) => ({
      queryKey: ['several', opened, deed, i.id],
      enabled: deed !== 'mute',
      retry: false,
      gcTime: 0,
      queryFn: () => (deed === 'send' ? sending(i, `${opened}-${i.id}`) : reminding(i)),
    })),
  });
  const found =
    deed === 'mute'
      ? invoices.map((i) => muting(i, until))
      : looks.flatMap((l, at) =>
          l.data
            ? [l.data]
            : l.error
              ? [
                  {
                    key: `error ${at}`,
                    name: invoices[at]?.number ?? '',
                    letter: '',
                    to: '',
                    none: messageOf(l.error),
                    run: nothing,
                  },
                ]
              : [],
        );
  // Invoices that one letter asks for are one letter.
  const jobs = [...new Map(found.map((j) => [j.key, j])).values()];
  const waiting = deed !== 'mute' && looks.some((l) => l.isPending);
  const can = jobs.filter((j) => !j.none);
  const start = async () => {
    setRunning(true);
    stop.current = false;
    const became: Done[] = jobs.filter((j) => j.none).map((j) => ({ name: j.name, failed: j.none }));
    setDone([...became]);
    for (const job of can) {
      if (stop.current) {
        became.push({ name: job.name, failed: 'not done: you stopped' });
        continue;
      }
      try {
        await job.run();
        became.unshift({ name: job.name, failed: '' });
      } catch (e) {
        became.unshift({ name: job.name, failed: messageOf(e) });
      }
      setDone([...became]);
    }
    setDone([...became]);
    setRunning(false);
    void queries.invalidateQueries();
  };
  const { title, act } = words[deed];
  const good = done?.filter((d) => !d.failed).length ?? 0;
  return (
    <Dialog
      size="lg"
      onClose={running ? () => undefined : onClose}
      title={title}
      closeButtonProps={{ disabled: running }}
    >
      {deed === 'mute' && done === null && (
        <DayField label="Until" hint="31 March, or +14" lean="coming" value={until} onChange={setUntil} />
      )}
      {waiting && <p className="faded">Looking at each…</p>}
      {done === null ? (
        <>
          <ul className={css.results}>
            {jobs.map((j) => (
              <li key={j.key}>
                <span>{j.name}</span>
                <span className={j.none ? 'late' : undefined}>
                  {j.none || j.to}
                  {j.letter && (
                    <details>
                      <summary>Read it</summary>
                      <div className={`letter ${letters.letter}`}>{j.letter}</div>
                    </details>
                  )}
                </span>
              </li>
            ))}
          </ul>
          <div className="row-of-links" style={{ alignItems: 'center' }}>
            <Button
              disabled={waiting || can.length === 0 || (deed === 'mute' && until === '')}
              onClick={() => void start()}
            >
              {act} {can.length}
            </Button>
            <Button variant="outline" onClick={onClose}>
              Not now
            </Button>
          </div>
        </>
      ) : (
        <>
          <p role="status">
            {running
              ? `${done.length} of ${jobs.length}…`
              : `${good} done${good < done.length ? `, ${done.length - good} not` : ''}.`}
          </p>
          {running && <progress max={jobs.length} value={done.length} aria-label="How far it is" />}
          <ul className={css.results}>
            {done.map((d) => (
              <li key={d.name}>
                <span>{d.name}</span>
                <span className={d.failed ? 'late' : 'got'}>{d.failed || 'done'}</span>
              </li>
            ))}
          </ul>
          {running ? (
            <Button variant="outline" onClick={() => (stop.current = true)}>
              Stop after this one
            </Button>
          ) : (
            <Button onClick={onClose}>Close</Button>
          )}
        </>
      )}
    </Dialog>
  );
}
