import { Button, Checkbox, Textarea, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { ApiError, problemOf } from '../api/client';
import { newKey } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { LaterField } from './LaterField';
import { type Channel, type Look, plainSlip, type Slip } from './slip';
import css from './Letters.module.css';

/** What goes to a telephone, how long it is and what that costs. */
function AsText({ look }: { look: Look }) {
  const a = look.asText;
  return (
    <>
      <div role="region" aria-label="The text message" className={css.bubble} tabIndex={0}>
        {look.text}
      </div>
      {a && (
        <p className="small faded" style={{ margin: 0 }} data-testid="length">
          {a.characters} characters, in {a.parts === 1 ? 'one part' : `${a.parts} parts`}: {a.cost}
        </p>
      )}
    </>
  );
}

/** The slip for one channel: to whom, with which words, when. */
export function SlipForm({
  channel,
  action,
  look,
  send,
  later,
  onChannels,
  onClose,
}: {
  channel: Channel;
  action: string;
  look: (slip: Slip) => Promise<Look>;
  send: (slip: Slip) => Promise<unknown>;
  later: boolean;
  onChannels: (channels: Channel[]) => void;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [opened] = useState(newKey);
  const [slip, setSlip] = useState<Slip>({ ...plainSlip, channel });
  // Where the client has none it is kept, else it is for this once; until somebody says otherwise.
  const [kept, setKept] = useState<boolean | null>(null);
  const put = (part: Partial<Slip>) => setSlip((s) => ({ ...s, ...part }));
  const text = channel === 'TEXT';
  const [shownLine] = useDebouncedValue(slip.line ?? '', 300);
  const letter = useQuery({
    queryKey: ['letter', opened, shownLine, slip.bare],
    queryFn: () => look({ ...plainSlip, channel, line: shownLine, bare: slip.bare }),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  const channels = letter.data?.channels;
  useEffect(() => {
    if (channels) onChannels(channels);
  }, [channels, onChannels]);
  const sending = useMutation({
    mutationFn: (keep: boolean) => send({ ...slip, keep, seen: letter.data?.seen ?? null }),
    onSuccess: () => {
      onClose();
      // All but the letter itself, which has gone.
      void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'letter' });
    },
    // What the letter says has changed meanwhile: the dialog shows what it says now.
    onError: (e) => {
      if (e instanceof ApiError && e.status === 409) void letter.refetch();
    },
  });
  const form = useRef<HTMLFormElement>(null);
  const shown = letter.data !== undefined;
  useEffect(() => {
    // The dialog took the focus before its letter was there. Whoever chose a way stays at it.
    const at = document.activeElement;
    if (!shown || at?.tagName === 'INPUT' || form.current?.contains(at)) return;
    form.current?.querySelector<HTMLElement>('[data-autofocus]')?.focus();
  }, [shown]);
  const problem = (field: string) =>
    problemOf(sending.error, `slip.${field}`) ?? problemOf(letter.error, `slip.${field}`);
  const toProblem = problem('to') ?? problemOf(sending.error, 'client.email');
  const beside = [toProblem, ...['subject', 'line', 'copies', 'at'].map(problem)].some(Boolean);
  return (
    <Loaded query={letter} what={text ? 'the text message' : 'the letter'}>
      {(l) => {
        const keep = kept ?? l.to === '';
        const other = slip.to !== null && slip.to.trim() !== '' && slip.to.trim() !== l.to;
        const submit = (event: FormEvent) => {
          event.preventDefault();
          if (!sending.isPending) sending.mutate(other && keep);
        };
        return (
          <form className="form" ref={form} onSubmit={submit} noValidate>
            {l.notes.length > 0 && (
              <ul className={css.notes} role="alert" aria-label="Ways to pay that are missing">
                {l.notes.map((n) => (
                  <li key={n}>{n}</li>
                ))}
              </ul>
            )}
            <TextInput
              label={text ? 'Number' : 'To'}
              description={text && l.to === '' ? 'No number is kept with this client yet.' : undefined}
              type={text ? 'tel' : 'email'}
              data-autofocus={l.to === '' ? true : undefined}
              value={slip.to ?? l.to}
              error={toProblem}
              onChange={(e) => put({ to: e.currentTarget.value })}
            />
            {other && (
              <Checkbox
                label={`Keep this ${text ? 'number' : 'address'} with the client`}
                checked={keep}
                onChange={(e) => setKept(e.currentTarget.checked)}
              />
            )}
            {!text && <MailHead slip={slip} put={put} problem={problem} subject={l.subject} />}
            <Textarea
              label="A line of your own"
              placeholder="may stay empty"
              autosize
              minRows={1}
              maxRows={4}
              value={slip.line ?? ''}
              error={problem('line')}
              onChange={(e) => put({ line: e.currentTarget.value })}
            />
            {text ? (
              <AsText look={l} />
            ) : (
              <>
                <div role="region" aria-label="The letter" className={`letter ${css.letter}`} tabIndex={0}>
                  {l.text}
                </div>
                {(slip.bare || l.files.length > 0) && (
                  <Checkbox
                    label={slip.bare ? 'With what is attached' : `Attached: ${l.files.join(', ')}`}
                    checked={!slip.bare}
                    onChange={(e) => put({ bare: !e.currentTarget.checked })}
                  />
                )}
              </>
            )}
            {later && <LaterField problem={problem('at')} onChange={(at) => put({ at })} />}
            <Refusal error={beside ? null : sending.error} />
            <Acts
              action={slip.at ? `${action}, later` : action}
              busy={sending.isPending}
              focus={l.to !== ''}
              onClose={onClose}
            >
              <Checkbox
                label={text ? 'A copy to me, by e-mail' : 'A copy to me'}
                checked={slip.copy}
                onChange={(e) => put({ copy: e.currentTarget.checked })}
              />
            </Acts>
          </form>
        );
      }}
    </Loaded>
  );
}

function MailHead({
  slip,
  put,
  problem,
  subject,
}: {
  slip: Slip;
  put: (part: Partial<Slip>) => void;
  problem: (field: string) => string | undefined;
  subject: string;
}) {
  return (
    <>
      {slip.copies === null ? (
        <button type="button" className={`link ${css.more}`} onClick={() => put({ copies: '' })}>
          + Copies to others
        </button>
      ) : (
        <TextInput
          label="Copies to"
          description="Up to five addresses, with commas between. Everybody sees to whom it went."
          autoFocus
          value={slip.copies}
          error={problem('copies')}
          onChange={(e) => put({ copies: e.currentTarget.value })}
        />
      )}
      <TextInput
        label="Subject"
        value={slip.subject ?? subject}
        error={problem('subject')}
        onChange={(e) => put({ subject: e.currentTarget.value })}
      />
    </>
  );
}

function Acts({
  action,
  busy,
  focus,
  onClose,
  children,
}: {
  action: string;
  busy: boolean;
  focus: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <div className={`row-of-links ${css.acts}`}>
      <Button type="submit" loading={busy} data-autofocus={focus ? true : undefined}>
        {action}
      </Button>
      <Button variant="outline" onClick={onClose}>
        Not now
      </Button>
      {children}
    </div>
  );
}
