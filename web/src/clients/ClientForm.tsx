import { Button, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { countries } from '../design/countries';
import { Refusal } from '../design/States';

type Client = Schemas['Client'];
const empty: Client = {
  id: 0,
  name: '',
  contact: '',
  email: '',
  address: '',
  country: '',
  taxNumber: '',
  certificate: '',
  exemptUntil: null,
  version: 1,
};

/** Writes down a client, or changes one. */
export function ClientForm({ client, onDone }: { client: Client | null; onDone: (client: Client) => void }) {
  const [form, setForm] = useState(client ?? empty);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () =>
      client
        ? data(api.PUT('/api/clients/{id}', { params: { path: { id: client.id } }, body: form }))
        : data(api.POST('/api/clients', { body: form })),
    onSuccess: async (saved) => {
      await queries.invalidateQueries();
      onDone(saved);
    },
  });
  const set = (
    field: 'name' | 'contact' | 'email' | 'address' | 'country' | 'taxNumber' | 'certificate',
  ) => ({
    value: form[field],
    error: problemOf(save.error, field),
    onChange: (e: { currentTarget: { value: string } }) => {
      const { value } = e.currentTarget;
      setForm((f) => ({ ...f, [field]: value }));
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <form className="form" style={{ maxWidth: 460 }} onSubmit={submit} noValidate>
      <TextInput label="Name" required autoFocus {...set('name')} />
      <TextInput label="Contact for invoices" {...set('contact')} />
      <TextInput label="E-mail address" type="email" {...set('email')} />
      <Textarea label="Address" autosize minRows={2} {...set('address')} />
      <NativeSelect label="Country" data={countries} {...set('country')} />
      <TextInput label="Tax number" {...set('taxNumber')} />
      <TextInput label="Tax exemption certificate" {...set('certificate')} />
      {form.certificate && (
        <TextInput
          label="The certificate’s last day, if it has one"
          type="date"
          value={form.exemptUntil ?? ''}
          error={problemOf(save.error, 'exemptUntil')}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setForm((f) => ({ ...f, exemptUntil: value || null }));
          }}
        />
      )}
      <Refusal error={save.error} />
      <Button type="submit" loading={save.isPending}>
        Save
      </Button>
    </form>
  );
}
