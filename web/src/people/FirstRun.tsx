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
type Field = keyof typeof empty;

/** Where the server knows each field. */
const serverName: Record<Field, string> = {
  ownerName: 'owner.name',
  ownerEmail: 'owner.email',
  passphrase: 'owner.passphrase',
  businessName: 'business.name',
  businessEmail: 'business.email',
  address: 'business.address',
  country: 'business.country',
  mark: 'business.mark',
  currency: 'business.currency',
  zone: 'business.zone',
  registered: 'tax.registered',
  taxNumber: 'tax.number',
  taxName: 'tax.name',
  taxRate: 'tax.rate',
};

const asSent = (f: typeof empty): Schemas['FirstRun'] => ({
  owner: { name: f.ownerName, email: f.ownerEmail, passphrase: f.passphrase },
  business: {
    name: f.businessName,
    email: f.businessEmail,
    address: f.address,
    country: f.country,
    currency: f.currency,
    zone: f.zone,
    mark: f.mark,
  },
  tax: { registered: f.registered, number: f.taxNumber, name: f.taxName, rate: f.taxRate },
});

/** The first page of an empty installation: the owner's account and the business. */
export function FirstRun({ onDone }: { onDone: (session: Schemas['Session']) => void }) {
  const [form, setForm] = useState(empty);
  const begin = useMutation({
    mutationFn: () => data(api.POST('/api/first-run', { body: asSent(form) })),
    onSuccess: onDone,
  });
  const text = (field: Exclude<Field, 'registered'>, label: string, extra: object = {}) => (
    <TextInput
      label={label}
      value={form[field]}
      error={problemOf(begin.error, serverName[field])}
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
          error={problemOf(begin.error, serverName.passphrase)}
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
          error={problemOf(begin.error, serverName.country)}
          onChange={(e) => chosen(e.currentTarget.value)}
        />
        {text('businessName', 'Its name', { required: true })}
        {text('businessEmail', 'Its e-mail address', { required: true, type: 'email' })}
        <Textarea
          label="Its address"
          autosize
          minRows={2}
          value={form.address}
          error={problemOf(begin.error, serverName.address)}
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
