import { Button, Checkbox, Modal, SegmentedControl, Textarea, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ApiError, problemOf, type Schemas } from '../api/client';
import { newKey } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { type Given, SendOtherwise, type Way } from './SendOtherwise';
import css from './Letters.module.css';

export type Slip = Schemas['Slip'];
export type Look = Schemas['ShownLetter'];

/** As the letter is, to whom it is for. */
export const plainSlip: Slip = {
  to: null,
  subject: null,
  line: null,
  copies: null,
  bare: false,
  copy: false,
  seen: null,
};

/** What goes and to whom, before it goes; address, subject and a line of one's own can be changed this once. */
export function SendDialog({
  title,
  action,
  look,
  send,
  onClose,
  given = null,
}: {
  title: string;
  action: string;
  look: (slip: Slip) => Promise<Look>;
  send: (slip: Slip) => Promise<unknown>;
  onClose: () => void;
  /** What can be given otherwise than by mail too; null where it cannot be yet. */
  given?: Given | null;
}) {
  const [way, setWay] = useState<Way>('mail');
  const queries = useQueryClient();
  const [opened] = useState(newKey);
  const [to, setTo] = useState<string | null>(null);
  const [subject, setSubject] = useState<string | null>(null);
  const [line, setLine] = useState('');
  const [copy, setCopy] = useState(false);
  const [copies, setCopies] = useState<string | null>(null);
  const [bare, setBare] = useState(false);
  const [shownLine] = useDebouncedValue(line, 300);
  const letter = useQuery({
    queryKey: ['letter', opened, shownLine, bare],
    queryFn: () => look({ ...plainSlip, line: shownLine, bare }),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  const sending = useMutation({
    mutationFn: () =>
      send({
        to: to ?? '',
        subject: subject ?? '',
        line,
        copies: copies ?? '',
        bare,
        copy,
        seen: letter.data?.seen ?? null,
      }),
    onSuccess: () => {
      onClose();
      void queries.invalidateQueries();
    },
    // What the letter says has changed meanwhile: the dialog shows what it says now.
    onError: (e) => {
      if (e instanceof ApiError && e.status === 409) void letter.refetch();
    },
  });
  const problem = (field: string) =>
    problemOf(sending.error, `slip.${field}`) ?? problemOf(letter.error, `slip.${field}`);
  const noAddress = problemOf(sending.error, 'client.email');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!sending.isPending) sending.mutate();
  };
  const beside = [problem('to') ?? noAddress, problem('subject'), problem('line'), problem('copies')].some(
    Boolean,
  );
  return (
    <Modal opened onClose={onClose} title={title} size="lg" closeButtonProps={{ 'aria-label': 'Close' }}>
      {given && (
        <SegmentedControl
          aria-label="How"
          className={css.ways}
          value={way}
          onChange={(w) => setWay(w as Way)}
          data={[
            { value: 'mail', label: 'By e-mail' },
            { value: 'link', label: 'A link' },
            { value: 'code', label: 'A code on screen' },
            { value: 'paper', label: 'On paper' },
          ]}
        />
      )}
      {given && way !== 'mail' && <SendOtherwise way={way} given={given} onClose={onClose} />}
      <Loaded query={letter} what="the letter">
        {(l) =>
          way === 'mail' && (
            <form className="form" onSubmit={submit} noValidate>
              <TextInput
                label="To"
                type="email"
                data-autofocus={l.to === '' ? true : undefined}
                value={to ?? l.to}
                error={problem('to') ?? noAddress}
                onChange={(e) => setTo(e.currentTarget.value)}
              />
              {copies === null ? (
                <button type="button" className={`link ${css.more}`} onClick={() => setCopies('')}>
                  + Copies to others
                </button>
              ) : (
                <TextInput
                  label="Copies to"
                  description="Up to five addresses, with commas between. Everybody sees to whom it went."
                  autoFocus
                  value={copies}
                  error={problem('copies')}
                  onChange={(e) => setCopies(e.currentTarget.value)}
                />
              )}
              <TextInput
                label="Subject"
                value={subject ?? l.subject}
                error={problem('subject')}
                onChange={(e) => setSubject(e.currentTarget.value)}
              />
              <Textarea
                label="A line of your own"
                placeholder="may stay empty"
                autosize
                minRows={1}
                maxRows={4}
                value={line}
                error={problem('line')}
                onChange={(e) => setLine(e.currentTarget.value)}
              />
              <div role="region" aria-label="The letter" className={`letter ${css.letter}`} tabIndex={0}>
                {l.text}
              </div>
              <Checkbox
                label={bare ? 'With what is attached' : `Attached: ${l.files.join(', ')}`}
                checked={!bare}
                onChange={(e) => setBare(!e.currentTarget.checked)}
              />
              <Refusal error={beside ? null : sending.error} />
              <div className={`row-of-links ${css.acts}`}>
                <Button
                  type="submit"
                  loading={sending.isPending}
                  data-autofocus={l.to === '' ? undefined : true}
                >
                  {action}
                </Button>
                <Button variant="outline" onClick={onClose}>
                  Not now
                </Button>
                <Checkbox
                  label="A copy to me"
                  checked={copy}
                  onChange={(e) => setCopy(e.currentTarget.checked)}
                />
              </div>
            </form>
          )
        }
      </Loaded>
    </Modal>
  );
}
