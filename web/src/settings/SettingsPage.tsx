import { Button, Checkbox, NativeSelect, PasswordInput, Select, TextInput, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { countries } from '../design/countries';
import { Loaded, Refusal } from '../design/States';
import { useTitle } from '../design/useTitle';

type Business = Schemas['Business'];
const done = (message: string) =>
  notifications.show({ message, closeButtonProps: { 'aria-label': 'Close' } });

function BusinessForm({ business }: { business: Business }) {
  const [form, setForm] = useState(business);
  const queries = useQueryClient();
  const [passphrase, setPassphrase] = useState('');
  const save = useMutation({
    mutationFn: async () => {
      if (passphrase) await data(api.POST('/api/session/proof', { body: { passphrase } }));
      return data(api.PUT('/api/business', { body: form }));
    },
    onSuccess: (saved) => {
      setForm(saved);
      setPassphrase('');
      void queries.invalidateQueries();
      done('The settings are kept. Issued documents stay as they are.');
    },
  });
  const text = (field: keyof Business, label: string) => (
    <TextInput
      label={label}
      value={String(form[field])}
      error={problemOf(save.error, field)}
      onChange={(e) => {
        const { value } = e.currentTarget;
        setForm((f) => ({ ...f, [field]: field === 'daysToPay' ? Number(value) || 0 : value }));
      }}
    />
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const asksPassphrase = problemOf(save.error, 'passphrase');
  return (
    <form className="form" onSubmit={submit} noValidate>
      <h2>The business</h2>
      {text('name', 'Name')}
      {text('tagline', 'What it does, in a line')}
      <Textarea
        label="Address"
        autosize
        minRows={2}
        value={form.address}
        error={problemOf(save.error, 'address')}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setForm((f) => ({ ...f, address: value }));
        }}
      />
      <NativeSelect
        label="Country"
        data={countries}
        value={form.country}
        error={problemOf(save.error, 'country')}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setForm((f) => ({ ...f, country: value }));
        }}
      />
      {text('email', 'E-mail address; letters go out from it')}
      <Checkbox
        label="Registered for tax"
        checked={form.registered}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setForm((f) => ({ ...f, registered: checked }));
        }}
      />
      {text('taxNumber', 'Tax number')}
      {text('iban', 'Account for transfers (IBAN)')}
      {text('bic', 'BIC of its bank')}
      <h2>Documents</h2>
      {text('invoicePattern', 'Invoice numbers; {year} and {seq} are filled in')}
      {text('creditNotePattern', 'Credit note numbers')}
      {text('daysToPay', 'Days to pay, for a new invoice')}
      <Select
        label="Where tax is rounded"
        data={[
          { value: 'PER_TAX', label: 'once for each tax of a document' },
          { value: 'PER_LINE', label: 'on each line' },
        ]}
        value={form.taxRounding}
        allowDeselect={false}
        onChange={(v) => setForm((f) => ({ ...f, taxRounding: v === 'PER_LINE' ? 'PER_LINE' : 'PER_TAX' }))}
      />
      {text('footer', 'Footer of every document')}
      {text('zone', 'Time zone')}
      <Checkbox
        label="Money settles late fees before installments"
        checked={form.feesFirst}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setForm((f) => ({ ...f, feesFirst: checked }));
        }}
      />
      <p className="faded small">The books are kept in {form.currency}.</p>
      {(asksPassphrase || passphrase) && (
        <PasswordInput
          label="Your passphrase, once more"
          autoComplete="current-password"
          value={passphrase}
          error={asksPassphrase}
          visibilityToggleButtonProps={{ 'aria-label': 'Show the passphrase' }}
          onChange={(e) => setPassphrase(e.currentTarget.value)}
        />
      )}
      {!asksPassphrase && <Refusal error={save.error} />}
      <Button type="submit" loading={save.isPending}>
        Save
      </Button>
    </form>
  );
}

function Passphrase() {
  const [form, setForm] = useState({ current: '', next: '' });
  const change = useMutation({
    mutationFn: () => data(api.PUT('/api/passphrase', { body: form })),
    onSuccess: () => {
      setForm({ current: '', next: '' });
      done('The new passphrase counts from now on. You were signed out everywhere else.');
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
      done('Kept. Drafts that were begun before keep the mark they were typed with.');
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
  const view = useQuery({ queryKey: ['business'], queryFn: () => data(api.GET('/api/business')) });
  return (
    <Loaded query={view} what="the settings">
      {(v) => (
        <div className="page">
          <h1>Settings</h1>
          <p>
            <Link className="link" to="/settings/taxes">
              Taxes and currencies
            </Link>
            <Link className="link" to="/settings/documents">
              Documents: layout, terms, own fields, cash
            </Link>
            <Link className="link" to="/settings/reminders">
              Reminders and late fees
            </Link>
            <Link className="link" to="/settings/access">
              Sign-ins
            </Link>
          </p>
          <div
            style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(320px, 1fr))', gap: 48 }}
          >
            <BusinessForm business={v.business} />
            <div>
              <Passphrase />
              <Typing mark={v.mark} />
            </div>
          </div>
        </div>
      )}
    </Loaded>
  );
}
