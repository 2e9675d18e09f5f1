import { Button, Checkbox, NativeSelect, PasswordInput, Textarea, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { countries } from '../design/countries';
import { Refusal } from '../design/States';

const empty = {
  ownerName: '',
  ownerEmail: '',
  passphrase: '',
  businessName: '',
  businessEmail: '',
  address: '',
  country: '',
  mark: '.',
  currency: 'EUR',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  registered: true,
  taxNumber: '',
  taxName: 'VAT 21%',
  taxRate: '21',
};
/** The server names a field of the business; the form calls some of them otherwise. */
const serverName: Record<string, string> = {
  businessName: 'name',
  businessEmail: 'email',
  taxName: 'name',
  taxRate: 'rate',
};

/** The first page of an empty installation: the owner's account and the business. */
export function FirstRun({ onDone }: { onDone: (session: Schemas['Session']) => void }) {
  const [form, setForm] = useState(empty);
  const begin = useMutation({
    mutationFn: () => data(api.POST('/api/first-run', { body: form })),
    onSuccess: onDone,
  });
  const text = (field: Exclude<keyof typeof empty, 'registered'>, label: string, extra: object = {}) => (
    <TextInput
      label={label}
      value={form[field]}
      error={problemOf(begin.error, serverName[field] ?? field)}
      onChange={(e) => {
        const { value } = e.currentTarget;
        setForm((f) => ({ ...f, [field]: value }));
      }}
      {...extra}
    />
  );
  const chosen = (country: string) => {
    setForm((f) => ({ ...f, country }));
    if (!country) return;
    void data(api.GET('/api/first-run', { params: { query: { country } } })).then((usual) =>
      setForm((f) =>
        f.country === country
          ? { ...f, currency: usual.currency, mark: usual.mark, zone: usual.zone || f.zone }
          : f,
      ),
    );
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate();
  };
  return (
    <main className="narrow">
      <h1>Welcome to Rustic Quill</h1>
      <p>Two things are needed before the first invoice: who you are, and in whose name it is written.</p>
      <form className="form" onSubmit={submit}>
        <h2>You</h2>
        {text('ownerName', 'Your name', { required: true })}
        {text('ownerEmail', 'Your e-mail address', {
          required: true,
          type: 'email',
          autoComplete: 'username',
        })}
        <PasswordInput
          label="A passphrase"
          description="At least 12 characters; four or five words are good."
          required
          autoComplete="new-password"
          value={form.passphrase}
          error={problemOf(begin.error, 'passphrase')}
          visibilityToggleButtonProps={{ 'aria-label': 'Show the passphrase' }}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setForm((f) => ({ ...f, passphrase: value }));
          }}
        />
        <h2>The business</h2>
        <NativeSelect
          label="Country"
          description="What is usual there is filled in below; change what is otherwise with you."
          data={countries}
          value={form.country}
          error={problemOf(begin.error, 'country')}
          onChange={(e) => chosen(e.currentTarget.value)}
        />
        {text('businessName', 'Its name', { required: true })}
        {text('businessEmail', 'Its e-mail address', { required: true, type: 'email' })}
        <Textarea
          label="Its address"
          autosize
          minRows={2}
          value={form.address}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setForm((f) => ({ ...f, address: value }));
          }}
        />
        {text('currency', 'Currency of its books (three letters)')}
        {text('zone', 'Time zone')}
        <NativeSelect
          label="Numbers are written"
          data={[
            { value: '.', label: '1,234.50' },
            { value: ',', label: '1.234,50' },
          ]}
          value={form.mark}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setForm((f) => ({ ...f, mark: value }));
          }}
        />
        <Checkbox
          label="It is registered for tax"
          checked={form.registered}
          onChange={(e) => {
            const { checked } = e.currentTarget;
            setForm((f) => ({ ...f, registered: checked }));
          }}
        />
        {form.registered && (
          <>
            {text('taxNumber', 'Tax number', { required: true })}
            {text('taxName', 'Its usual tax, as printed', { required: true })}
            {text('taxRate', 'Rate of that tax, in percent', { required: true })}
          </>
        )}
        <Refusal error={begin.error} />
        <Button type="submit" loading={begin.isPending}>
          Begin
        </Button>
      </form>
    </main>
  );
}
