import { Button, Menu, NativeSelect, SegmentedControl } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useRef, useState } from 'react';
import { NavLink } from 'react-router';
import { api, ApiError, data, messageOf, type Schemas, told } from '../api/client';
import { letter, type LetterKind } from '../api/letters';
import { longDate } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { forgetWording, rememberWording, wordingOf } from './rememberedWording';
import { LetterText, type LetterTextHandle } from './LetterText';
import { LetterPreview } from './LetterPreview';
import css from './LettersPage.module.css';

type View = Schemas['LetterView'];
type Preview = Schemas['LetterPreview'];
const LOOK_AFTER = 350;

/** What stands wrong with a field, or nothing. */
const wrong = (error: unknown, field: string) =>
  error instanceof ApiError ? told(error.problems.filter((p) => p.field === field)) || undefined : undefined;

/** The fields that can be put in, group by group, for whoever would rather press than type. */
function Fields({ fields, onPick }: { fields: View['fields']; onPick: (title: string) => void }) {
  const groups = [...new Set(fields.map((f) => f.group))];
  return (
    <details className={css.fields}>
      <summary>
        Type <kbd>{'{'}</kbd> for a field: {groups.join(', ')}. Or pick one here.
      </summary>
      {groups.map((group) => (
        <dl key={group}>
          {fields
            .filter((f) => f.group === group)
            .map((f) => (
              <div key={f.title}>
                <dt>
                  <button
                    type="button"
                    className="link"
                    onMouseDown={(e) => e.preventDefault()}
                    onClick={() => onPick(f.title)}
                  >
                    {f.title}
                  </button>
                </dt>
                <dd className="faded small">
                  {f.meaning}
                  {f.drawn && '; on a line of its own'}
                </dd>
              </div>
            ))}
        </dl>
      ))}
    </details>
  );
}

function Desk({ view, payer, onPayer }: { view: View; payer: boolean; onPayer: (payer: boolean) => void }) {
  const queries = useQueryClient();
  const [left] = useState(() => wordingOf(view.kind, payer));
  const [subject, setSubject] = useState(left?.subject ?? view.subject);
  const [body, setBody] = useState(left?.body ?? view.body);
  // What was typed began from this; another window may have worded it anew since.
  const [base, setBase] = useState(view);
  const [overtaken, setOvertaken] = useState(left !== null && left.version !== view.version);
  if (view.version !== base.version) {
    if (subject === base.subject && body === base.body) {
      setSubject(view.subject);
      setBody(view.body);
    } else setOvertaken(true);
    setBase(view);
  }
  const { version } = view;
  const [client, setClient] = useState('');
  const head = useRef<LetterTextHandle>(null);
  const text = useRef<LetterTextHandle>(null);
  const [last, setLast] = useState<'head' | 'text'>('text');
  const [typed] = useDebouncedValue({ subject, body }, LOOK_AFTER);
  const preview = useQuery<Preview>({
    queryKey: ['letters', view.kind, 'preview', typed, client],
    queryFn: () =>
      data(
        api.POST('/api/letters/{kind}/preview', {
          params: { path: { kind: view.kind } },
          body: { ...typed, clientId: client ? Number(client) : null },
        }),
      ),
    gcTime: 0,
    retry: false,
  });
  // What was shown last stays while what is typed cannot be.
  const [shown, setShown] = useState<Preview | null>(null);
  if (preview.data && preview.data !== shown) setShown(preview.data);
  const plain = view.ours.find((o) => o.tone === 'Plain');
  const isOurs = plain?.subject === subject.trim() && plain.body === body.trim();
  const changed = subject !== view.subject || body !== view.body;
  const put = (next: { subject: string; body: string }) => {
    setSubject(next.subject);
    setBody(next.body);
    if (next.subject === view.subject && next.body === view.body) forgetWording(view.kind, payer);
    else rememberWording(view.kind, payer, { version, ...next });
  };
  /** It is worded like this now. */
  const taken = async (kept: View) => {
    forgetWording(view.kind, payer);
    // First: it may be drawn at once, before what is set below.
    queries.setQueryData(letter(view.kind, payer).queryKey, kept);
    setSubject(kept.subject);
    setBody(kept.body);
    setBase(kept);
    setOvertaken(false);
    await queries.invalidateQueries({ queryKey: ['letters'] });
  };
  const toOurs = () =>
    data(
      api.POST('/api/letters/{kind}/ours', {
        params: { path: { kind: view.kind } },
        body: { payer, version },
      }),
    );
  const save = useMutation({
    mutationFn: () =>
      isOurs && !payer
        ? toOurs()
        : data(
            api.PUT('/api/letters/{kind}', {
              params: { path: { kind: view.kind } },
              body: { payer, subject, body, version },
            }),
          ),
    onSuccess: async (kept) => {
      await taken(kept);
      tell(
        view.onPage
          ? 'The page says so from now on.'
          : 'It goes like this from now on. What was sent before stays as it was.',
      );
    },
    // Another window was first: what it says now is fetched, and what was typed here stands beside it.
    onError: (e) => {
      if (!(e instanceof ApiError && e.status === 409)) return;
      void queries.invalidateQueries({ queryKey: ['letters'] });
    },
  });
  const trial = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/letters/{kind}/trial', {
          params: { path: { kind: view.kind } },
          body: { subject, body, clientId: client ? Number(client) : null },
        }),
      ),
    onSuccess: () => tell('It goes to your own address, as it stands here.'),
  });
  const drop = useMutation({
    mutationFn: toOurs,
    onSuccess: async (kept) => {
      await taken(kept);
      tell('Who pays for a client gets the same letter as the client from now on.');
    },
  });
  const begin = (from: { subject: string; body: string }) => {
    const before = { subject, body };
    put(from);
    tell(
      <span>
        It begins anew from ours.{' '}
        <button type="button" className="link" onClick={() => put(before)}>
          Bring mine back
        </button>
      </span>,
      { autoClose: 20_000 },
    );
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const error = save.error ?? preview.error;
  const beside = wrong(save.error, 'subject') ?? wrong(save.error, 'body');
  return (
    <form className={css.desk} onSubmit={submit} noValidate>
      <div className={css.wording}>
        <NavLink className="link back" to="/settings/letters">
          Letters
        </NavLink>
        <h1>{view.title}</h1>
        <p className="faded" style={{ margin: '0 0 12px' }}>
          {view.goes} {view.own ? `Yours, since ${longDate(view.own)}.` : 'It goes as we worded it.'}
        </p>
        <div className={css.above}>
          {view.payers && (
            <SegmentedControl
              aria-label="To whom"
              value={payer ? 'payer' : 'client'}
              onChange={(v) => onPayer(v === 'payer')}
              data={[
                { value: 'client', label: 'To the client' },
                { value: 'payer', label: 'To who pays for it' },
              ]}
            />
          )}
          <Menu position="bottom-end">
            <Menu.Target>
              <button type="button" className="link">
                Begin again from ours
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              {view.ours.map((o) => (
                <Menu.Item key={o.tone} onClick={() => begin(o)}>
                  {o.tone}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        </div>
        {overtaken && (
          <p className={css.notes} role="status" style={{ margin: '0 0 8px', paddingLeft: 12 }}>
            This letter was changed in another window. What you typed stands here, and goes in its place if
            you use it.
          </p>
        )}
        {left && !overtaken && (
          <p className="small faded" role="status" style={{ margin: '0 0 8px' }}>
            What you typed here before is back; it does not go yet.
          </p>
        )}
        {!view.bare && (
          <>
            <LetterText
              ref={head}
              label="Subject"
              lines={false}
              value={subject}
              fields={view.fields}
              problem={wrong(error, 'subject')}
              onChange={(s) => put({ subject: s, body })}
              onFocus={() => setLast('head')}
            />
            <div style={{ height: 12 }} />
          </>
        )}
        <LetterText
          ref={text}
          label="Text"
          lines
          value={body}
          fields={view.fields}
          problem={wrong(error, 'body')}
          onChange={(b) => put({ subject, body: b })}
          onFocus={() => setLast('text')}
        />
        {shown && !preview.isError && shown.notes.length > 0 && (
          <ul className={css.notes} role="status">
            {shown.notes.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        )}
        <Fields
          fields={view.fields}
          onPick={(title) => (last === 'head' ? head : text).current?.insert(`{${title}}`)}
        />
        <Refusal error={beside ? null : save.error} />
        <Refusal error={drop.error ?? trial.error} />
        <div className={css.acts}>
          <span className={css.problems} role="alert">
            {[wrong(error, 'subject'), wrong(error, 'body')].filter(Boolean).join(' ')}
          </span>
          {payer && view.own && (
            <button type="button" className="link" onClick={() => drop.mutate()}>
              The same as to the client
            </button>
          )}
          {!view.onPage && (
            <Button variant="outline" loading={trial.isPending} onClick={() => trial.mutate()}>
              Send me one
            </Button>
          )}
          {changed && (
            <Button
              variant="outline"
              onClick={() => {
                put({ subject: view.subject, body: view.body });
                setOvertaken(false);
              }}
              disabled={save.isPending}
            >
              Leave it as it was
            </Button>
          )}
          <Button type="submit" loading={save.isPending} disabled={!changed}>
            Use from now on
          </Button>
        </div>
      </div>
      <div className={css.arriving}>
        <div className={css.head}>
          <b>{view.onPage ? 'On the page' : view.bare ? 'On the telephone' : 'As it would arrive'}</b>
          <NativeSelect
            aria-label="With whom"
            value={client}
            onChange={(e) => setClient(e.currentTarget.value)}
            data={[
              { value: '', label: 'the latest' },
              ...(shown?.choices ?? []).map((c) => ({ value: String(c.id), label: c.name })),
            ]}
          />
        </div>
        {shown ? (
          <LetterPreview preview={shown} bare={view.bare} />
        ) : (
          <p className="faded">{preview.isError ? messageOf(preview.error) : 'One moment…'}</p>
        )}
        {!view.bare && (
          <p className="small faded">
            Button, account and square code are each document’s own: they lead to its page and carry its sum.
            Where nothing is owed there are none.
          </p>
        )}
      </div>
    </form>
  );
}

/** One letter: its wording, its fields, and what it would say now with a real client. */
export function LetterDesk({ kind }: { kind: LetterKind }) {
  const [payer, setPayer] = useState(false);
  const view = useQuery(letter(kind, payer));
  return (
    <Loaded query={view} what="the letter">
      {(v) => <Desk key={`${kind}-${payer}`} view={v} payer={payer} onPayer={setPayer} />}
    </Loaded>
  );
}
