import { Button, PasswordInput, SegmentedControl, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { processors } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { copyLink } from '../design/copyLink';
import css from '../design/Form.module.css';
import { PassphraseField, prove } from '../design/PassphraseField';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';

type All = Schemas['ProcessorsView'];
type Kept = Schemas['ProcessorView'];
type Kind = Schemas['ProcessorKind'];

const words: Record<string, string> = { OFF: 'off', TEST: 'being tested', ON: 'on' };

const modes = [
  { value: 'OFF', label: 'Off' },
  { value: 'TEST', label: 'Test' },
  { value: 'ON', label: 'On' },
];

const said: Record<string, string> = {
  OFF: 'Nobody is offered a card. What was begun before is still settled.',
  TEST: 'Clients’ pages can be paid on trial: nothing is taken, nothing is settled or booked, and page, paper and list say so. No letter speaks of cards.',
  ON: 'Clients pay by card.',
};

/** Sets one up, or changes it. @param kept null for a new one */
function ProcessorForm({
  kept,
  kind,
  accounts,
  onDone,
}: {
  kept: Kept | null;
  kind: Kind;
  accounts: All['accounts'];
  onDone?: () => void;
}) {
  const queries = useQueryClient();
  const took = (answer: All) => queries.setQueryData(processors.queryKey, answer);
  const form = useServerForm<
    {
      name: string;
      mode: string;
      paysInto: string;
      credentials: Record<string, string>;
      passphrase: string;
    },
    All
  >({
    initial: {
      name: kept?.name ?? '',
      mode: kept?.mode ?? 'TEST',
      paysInto: kept?.paysInto ?? '',
      credentials: Object.fromEntries(
        kind.fields.map((f) => [f.name, kept?.credentials.find((c) => c.field.name === f.name)?.value ?? '']),
      ),
      passphrase: '',
    },
    send: async ({ passphrase, ...typed }) => {
      await prove(passphrase);
      const body = { ...typed, kind: kind.kind, version: kept?.version ?? 0 };
      return kept
        ? data(api.PUT('/api/processors/{id}', { params: { path: { id: kept.id } }, body }))
        : data(api.POST('/api/processors', { body }));
    },
    onDone: async (answer) => {
      took(answer);
      onDone?.();
      tell('Saved.');
      await queries.invalidateQueries();
    },
  });
  const { values } = form.form;
  const remove = useMutation({
    mutationFn: async () => {
      await prove(values.passphrase);
      return data(
        api.DELETE('/api/processors/{id}', {
          params: { path: { id: kept?.id ?? 0 }, query: { version: kept?.version ?? 0 } },
        }),
      );
    },
    onSuccess: async (answer) => {
      took(answer);
      await queries.invalidateQueries();
    },
  });
  const trial = useMutation({
    mutationFn: () =>
      data(api.POST('/api/processors/{id}/trial', { params: { path: { id: kept?.id ?? 0 } } })),
  });
  return (
    <form
      className={css.form}
      onSubmit={form.submit}
      noValidate
      aria-label={kept?.name ?? 'New card processor'}
    >
      <TextInput className={css.half} label="Name, as you call it" data-path="name" {...form.field('name')} />
      <TextInput className={css.half} label="Kind" value={kind.title} readOnly />
      <div className={css.whole}>
        <SegmentedControl
          aria-label="Whether it is used"
          data={modes}
          value={values.mode}
          onChange={(mode) => form.form.setFieldValue('mode', mode)}
        />
        <p className="faded small" style={{ margin: '4px 0 0' }}>
          {said[values.mode]}
        </p>
      </div>
      <Select
        className={css.whole}
        label="Pays out to"
        placeholder={accounts.length ? 'choose an account' : 'you have named no bank account yet'}
        data={accounts.map((a) => ({ value: a.iban, label: a.words }))}
        clearable
        {...form.field('paysInto')}
        value={values.paysInto || null}
        onChange={(iban) => form.form.setFieldValue('paysInto', iban ?? '')}
      />
      {kept?.fromSettings ? (
        <p className={`${css.whole} faded small`} style={{ margin: 0 }}>
          Its address and its keys stand in the settings file of this installation, and are changed there.
        </p>
      ) : (
        kind.fields.map((f) => {
          const given = kept?.credentials.find((c) => c.field.name === f.name)?.given;
          const path = `credentials.${f.name}`;
          return f.secret ? (
            <PasswordInput
              key={f.name}
              className={css.half}
              label={f.label}
              description={f.hint}
              placeholder={given ? 'kept; type to replace it' : ''}
              autoComplete="off"
              visibilityToggleButtonProps={{ 'aria-label': `Show what you type as ${f.label}` }}
              {...form.field(path)}
            />
          ) : (
            <TextInput
              key={f.name}
              className={css.whole}
              label={f.label}
              placeholder={f.hint}
              autoComplete="off"
              {...form.field(path)}
            />
          );
        })
      )}
      {kept && (
        <p className={`${css.whole} small`} style={{ margin: 0 }}>
          <span className="faded">It sends its events to</span>{' '}
          <span style={{ overflowWrap: 'anywhere' }}>{kept.eventsTo}</span>{' '}
          <button
            type="button"
            className="link"
            onClick={() => copyLink(kept.eventsTo, 'The address for its events is copied')}
          >
            Copy
          </button>
        </p>
      )}
      <PassphraseField className={css.half} {...form.field('passphrase')} />
      <div className={css.whole}>
        <Refusal error={form.elsewhere ?? remove.error ?? trial.error} />
        {trial.data && (
          <p className={trial.data.ok ? 'small' : 'late small'} role="status" style={{ margin: '0 0 6px' }}>
            {trial.data.words}
          </p>
        )}
        <div className={css.acts}>
          <Button type="submit" loading={form.save.isPending}>
            Save
          </Button>
          {kept && (
            <Button variant="outline" loading={trial.isPending} onClick={() => trial.mutate()}>
              Ask whether it answers
            </Button>
          )}
          {kept && !kept.fromSettings && (
            <button type="button" className="link" onClick={() => remove.mutate()}>
              Remove
            </button>
          )}
          {!kept && (
            <button type="button" className="link" onClick={onDone}>
              Do not add one
            </button>
          )}
        </div>
      </div>
    </form>
  );
}

/** The services that take cards: how they are reached, where they pay out to, whether they are used. */
export function ProcessorsPage() {
  useTitle('Card processors');
  const all = useQuery(processors);
  // One at a time: undefined for the only one there is, a kind for a new one.
  const [open, setOpen] = useState<number | Kind | null | undefined>(undefined);
  return (
    <>
      <h1>Card processors</h1>
      <p className="faded">
        The services that take cards and pay out to your bank account. Keys are kept sealed and are shown to
        nobody again. Which of them takes cards is said under <Link to="/settings/ways">Ways to pay</Link>.
      </p>
      <Loaded query={all} what="the card processors">
        {({ processors: kept, kinds, accounts }) => {
          const shown = open === undefined && kept.length === 1 ? kept[0]?.id : open;
          return (
            <>
              {kept.length === 0 && (
                <p className="empty">None is set up: nothing is said of cards anywhere.</p>
              )}
              {kept.map((p) => {
                const kind = kinds.find((k) => k.kind === p.kind);
                return (
                  <section key={p.id} aria-label={p.name} style={{ marginTop: 24 }}>
                    <h2>
                      {p.name} <span className="faded small">{words[p.mode]}</span>
                    </h2>
                    {p.warnings.map((w) => (
                      <p key={w} className="late" role="alert" style={{ margin: '4px 0' }}>
                        {w}
                      </p>
                    ))}
                    {kind && shown === p.id ? (
                      <ProcessorForm key={p.version} kept={p} kind={kind} accounts={accounts} />
                    ) : (
                      <button type="button" className="link" onClick={() => setOpen(p.id)}>
                        Change {p.name}
                      </button>
                    )}
                  </section>
                );
              })}
              {shown !== null && typeof shown === 'object' ? (
                <section aria-label="A new card processor" style={{ marginTop: 32 }}>
                  <h2>A new one</h2>
                  <ProcessorForm kept={null} kind={shown} accounts={accounts} onDone={() => setOpen(null)} />
                </section>
              ) : (
                kinds.map((k) => (
                  <p key={k.kind} style={{ marginTop: 24 }}>
                    <Button variant="outline" onClick={() => setOpen(k)}>
                      Add: {k.title}
                    </Button>
                  </p>
                ))
              )}
            </>
          );
        }}
      </Loaded>
    </>
  );
}
