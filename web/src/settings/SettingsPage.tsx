import { Button, Checkbox, NativeSelect, PasswordInput, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { business as businessQuery, numbers } from '../api/business';
import { api, data, problemOf, type Schemas } from '../api/client';
import { upload } from '../api/upload';
import { countries } from '../design/countries';
import css from '../design/Form.module.css';
import { PassphraseField, prove } from '../design/PassphraseField';
import { Loaded, Refusal } from '../design/States';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';
import { tell } from '../design/tell';
import { PictureField } from '../design/PictureField';

type Business = Schemas['Business'];

function BusinessForm({ business }: { business: Business }) {
  const queries = useQueryClient();
  const form = useServerForm<Business & { passphrase: string }, Business>({
    initial: { ...business, passphrase: '' },
    send: async ({ passphrase, ...typed }) => {
      await prove(passphrase);
      return data(api.PUT('/api/business', { body: typed }));
    },
    onDone: async (saved, f) => {
      f.setValues({ ...saved, passphrase: '' });
      await queries.invalidateQueries();
      tell('The settings are kept. Issued documents stay as they are.');
    },
  });
  const { values, errors } = form.form;
  const asks = errors.passphrase !== undefined || values.passphrase !== '';
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput className={css.half} label="Name" {...form.field('name')} />
      <TextInput className={css.half} label="What it does, in a line" {...form.field('tagline')} />
      <Textarea className={css.half} label="Address" autosize minRows={2} {...form.field('address')} />
      <div className={css.half}>
        <NativeSelect label="Country" data={countries} {...form.field('country')} />
        <TextInput label="Time zone" mt={14} {...form.field('zone')} />
      </div>
      <TextInput
        className={css.half}
        label="E-mail address; letters go out from it"
        {...form.field('email')}
      />
      <TextInput className={css.half} label="Tax number" {...form.field('taxNumber')} />
      <Checkbox className={css.whole} label="Registered for tax" {...form.tick('registered')} />
      <TextInput className={css.half} label="Account for transfers (IBAN)" {...form.field('account.iban')} />
      <TextInput className={css.half} label="BIC of its bank" {...form.field('account.bic')} />
      <h2>Documents</h2>
      <TextInput
        className={css.half}
        label="Invoice numbers; {year} and {seq} are filled in"
        {...form.field('habits.invoicePattern')}
      />
      <TextInput
        className={css.half}
        label="Credit note numbers"
        {...form.field('habits.creditNotePattern')}
      />
      <TextInput className={css.half} label="Quote numbers" {...form.field('habits.quotePattern')} />
      <TextInput
        className={css.third}
        label="Days to pay, for a new invoice"
        inputMode="numeric"
        {...form.field('habits.daysToPay')}
        onChange={(e) =>
          form.form.setFieldValue('habits.daysToPay', Number(e.currentTarget.value.replace(/\D/g, '')) || 0)
        }
      />
      <NativeSelect
        className={css.third}
        label="Where tax is rounded"
        data={[
          { value: 'PER_TAX', label: 'once for each tax of a document' },
          { value: 'PER_LINE', label: 'on each line' },
        ]}
        {...form.field('habits.taxRounding')}
      />
      <TextInput className={css.third} label="Footer of every document" {...form.field('habits.footer')} />
      <Checkbox
        className={css.whole}
        label="Money settles late fees before installments"
        {...form.tick('habits.feesFirst')}
      />
      <p className={`faded small ${css.whole}`} style={{ margin: 0 }}>
        The books are kept in {business.currency}.
      </p>
      {asks && <PassphraseField className={css.half} {...form.field('passphrase')} />}
      <div className={css.whole}>
        <Refusal error={asks ? null : form.elsewhere} />
        <Button type="submit" loading={form.save.isPending}>
          Save
        </Button>
      </div>
    </form>
  );
}

const noAccount = { currency: '', iban: '', bic: '', passphrase: '' };

/** Accounts to which other currencies are transferred: an invoice names the one of its currency. */
function Accounts({ accounts, own }: { accounts: Schemas['BankAccount'][]; own: string }) {
  const queries = useQueryClient();
  const form = useServerForm<typeof noAccount, unknown>({
    initial: noAccount,
    send: async ({ passphrase, ...typed }) => {
      await prove(passphrase);
      return data(api.PUT('/api/business/accounts', { body: typed }));
    },
    onDone: async (_, f) => {
      f.setValues(noAccount);
      await queries.invalidateQueries();
    },
  });
  const { passphrase } = form.form.values;
  const remove = useMutation({
    mutationFn: async (currency: string) => {
      await prove(passphrase);
      return data(api.DELETE('/api/business/accounts/{currency}', { params: { path: { currency } } }));
    },
    onSuccess: async () => {
      form.form.setFieldValue('passphrase', '');
      await queries.invalidateQueries();
    },
  });
  return (
    <section aria-label="Accounts in other currencies" style={{ marginTop: 32 }}>
      <h2>Accounts in other currencies</h2>
      <p className="faded">
        What is billed in {own}, or in a currency without an account here, is transferred to the account
        above.
      </p>
      <ul className="list">
        {accounts.map((a) => (
          <li key={a.currency}>
            <span className="when">{a.currency}</span>
            <span className="grow figures">{[a.iban, a.bic].filter(Boolean).join(' · ')}</span>
            <button type="button" className="link" onClick={() => remove.mutate(a.currency)}>
              Remove
            </button>
          </li>
        ))}
      </ul>
      <form className={css.form} onSubmit={form.submit} noValidate>
        <TextInput
          className={css.sixth}
          label="Of currency"
          maxLength={3}
          {...form.field('currency')}
          onChange={(e) => form.form.setFieldValue('currency', e.currentTarget.value.toUpperCase())}
        />
        <TextInput className={css.third} label="IBAN for it" {...form.field('iban')} />
        <TextInput className={css.sixth} label="Its BIC" {...form.field('bic')} />
        <PassphraseField className={css.third} {...form.field('passphrase')} />
        <div className={css.whole}>
          <Refusal error={form.elsewhere ?? remove.error} />
          <Button type="submit" variant="outline" loading={form.save.isPending}>
            Keep this account
          </Button>
        </div>
      </form>
    </section>
  );
}

/** The logo: a picture that is printed at the head of every document from now on. */
function Logo({ logo }: { logo: string }) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: businessQuery.queryKey });
  return (
    <section aria-label="Logo" style={{ marginTop: 32 }}>
      <h2>Logo</h2>
      <PictureField
        src={logo && `/api/business/logo/${logo}`}
        alt="The logo, as it is printed"
        label="A logo as PNG, JPEG or SVG"
        off="Print none"
        hint="PNG, JPEG or SVG, at most 2 MB. What was issued keeps the logo it had."
        onFile={async (file) => {
          await upload<Schemas['TakenLogo']>('/api/business/logo', file);
          await again();
        }}
        onOff={async () => {
          await data(api.DELETE('/api/business/logo'));
          await again();
        }}
      />
    </section>
  );
}

/** The numbers that come next; where none was given out yet, the first can be set. */
function Numbers() {
  const next = useQuery(numbers);
  const queries = useQueryClient();
  const [first, setFirst] = useState<Record<string, string>>({});
  const begin = useMutation({
    mutationFn: (kind: string) =>
      data(api.PUT('/api/numbers', { body: { kind, next: Number(first[kind] ?? '') || 0 } })),
    onSuccess: (answer) => queries.setQueryData(numbers.queryKey, answer),
  });
  return (
    <section aria-label="Next numbers" style={{ marginTop: 32 }}>
      <h2>Next numbers</h2>
      {(next.data ?? []).map((n) => (
        <div key={n.kind} className={css.acts} style={{ marginBottom: 8 }}>
          <span>
            The next {n.kind} is <b className="figures">{n.next}</b>.
          </span>
          {!n.begun && (
            <>
              <TextInput
                size="xs"
                aria-label={`First number of a ${n.kind}`}
                placeholder="begin at…"
                inputMode="numeric"
                value={first[n.kind] ?? ''}
                error={begin.variables === n.kind ? problemOf(begin.error, 'next') : undefined}
                onChange={(e) => {
                  const { value } = e.currentTarget;
                  setFirst((f) => ({ ...f, [n.kind]: value }));
                }}
              />
              <button type="button" className="link" onClick={() => begin.mutate(n.kind)}>
                Begin there
              </button>
            </>
          )}
        </div>
      ))}
    </section>
  );
}

function Passphrase() {
  const [form, setForm] = useState({ current: '', next: '' });
  const change = useMutation({
    mutationFn: () => data(api.PUT('/api/passphrase', { body: form })),
    onSuccess: () => {
      setForm({ current: '', next: '' });
      tell('The new passphrase counts from now on. You were signed out everywhere else.');
    },
  });
  const set = (field: 'current' | 'next') => ({
    value: form[field],
    error: problemOf(change.error, field),
    visibilityToggleButtonProps: { 'aria-label': 'Show the passphrase' },
    onChange: (e: { currentTarget: { value: string } }) => {
      const { value } = e.currentTarget;
      setForm((f) => ({ ...f, [field]: value }));
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate();
  };
  return (
    <form className="form" onSubmit={submit} noValidate style={{ marginTop: 32 }}>
      <h2>Your passphrase</h2>
      <PasswordInput label="The one you have" autoComplete="current-password" {...set('current')} />
      <PasswordInput label="A new one" autoComplete="new-password" {...set('next')} />
      <Button type="submit" variant="outline" loading={change.isPending}>
        Change it
      </Button>
    </form>
  );
}

/** How numbers are read that are typed from now on; what stands in a draft keeps the mark it was typed with. */
function Typing({ mark }: { mark: string }) {
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (next: string) => data(api.PUT('/api/business/decimal-mark', { body: { mark: next } })),
    onSuccess: () => {
      void queries.invalidateQueries();
      tell('Kept. Drafts that were begun before keep the mark they were typed with.');
    },
  });
  return (
    <div className="form" style={{ marginTop: 32 }}>
      <h2>Numbers you type</h2>
      <NativeSelect
        label="Before the decimals stands"
        data={[
          { value: '.', label: 'a point: 58.50, and 1,234 is a thousand' },
          { value: ',', label: 'a comma: 58,50, and 1.234 is a thousand' },
        ]}
        value={mark}
        onChange={(e) => change.mutate(e.currentTarget.value)}
      />
      <Refusal error={change.error} />
    </div>
  );
}

export function SettingsPage() {
  useTitle('Settings');
  const view = useQuery(businessQuery);
  return (
    <Loaded query={view} what="the settings">
      {(v) => (
        <>
          <h1>The business</h1>
          <BusinessForm business={v.business} />
          <Accounts accounts={v.accounts} own={v.business.currency} />
          <Logo logo={v.logo} />
          <Numbers />
          <Typing mark={v.mark} />
          <Passphrase />
        </>
      )}
    </Loaded>
  );
}
