import { Button, Checkbox, NativeSelect, TagsInput, Textarea, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { business as businessQuery, schedules } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { countries } from '../design/countries';
import { DayField } from '../design/DayField';
import css from '../design/Form.module.css';
import { Refusal } from '../design/States';
import { TaxTicks } from '../design/TaxTicks';
import { useServerForm } from '../design/useServerForm';

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
  more: {
    kind: 'BUSINESS',
    number: '',
    phone: '',
    delivery: '',
    currency: '',
    daysToPay: null,
    schedule: null,
    taxes: [],
    contacts: [],
    notes: '',
    tags: [],
  },
  version: 1,
};

/** Writes down a client, or changes one. */
export function ClientForm({ client, onDone }: { client: Client | null; onDone: (client: Client) => void }) {
  const queries = useQueryClient();
  const business = useQuery(businessQuery).data;
  const kept = useQuery(schedules);
  const form = useServerForm<Client, Client>({
    initial: client ?? empty,
    send: (typed) =>
      client
        ? data(api.PUT('/api/clients/{id}', { params: { path: { id: client.id } }, body: typed }))
        : data(api.POST('/api/clients', { body: typed })),
    onDone: async (saved) => {
      await queries.invalidateQueries();
      onDone(saved);
    },
  });
  const values = form.form.values;
  const set = form.form.setFieldValue;
  const { contacts } = values.more;
  /** Only one of them is given a part: ticking it for one takes it from the other. */
  const give = (part: 'reminders' | 'receipts', place: number, on: boolean) =>
    set(
      'more.contacts',
      contacts.map((c, i) => ({
        ...c,
        [part]: on && i === place ? true : on ? false : i === place ? false : c[part],
      })),
    );
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput className={css.whole} label="Name" required autoFocus {...form.field('name')} />
      <TextInput className={css.half} label="Contact for invoices" {...form.field('contact')} />
      <TextInput className={css.half} label="E-mail address" type="email" {...form.field('email')} />
      <Textarea className={css.half} label="Address" autosize minRows={2} {...form.field('address')} />
      <div className={css.half}>
        <TextInput label="Telephone" type="tel" {...form.field('more.phone')} />
        <NativeSelect label="Country" data={countries} mt={14} {...form.field('country')} />
      </div>

      <h2>Terms and taxes</h2>
      <NativeSelect
        className={css.third}
        label="Kind"
        data={[
          { value: 'BUSINESS', label: 'a business' },
          { value: 'CONSUMER', label: 'a consumer' },
        ]}
        {...form.field('more.kind')}
      />
      <TextInput className={css.third} label="Tax number" {...form.field('taxNumber')} />
      <TextInput
        className={css.third}
        label="Days to pay"
        placeholder={business ? `as usual, ${business.business.habits.daysToPay}` : ''}
        inputMode="numeric"
        {...form.field('more.daysToPay')}
        value={values.more.daysToPay ?? ''}
        onChange={(e) => {
          const digits = e.currentTarget.value.replace(/\D/g, '');
          set('more.daysToPay', digits ? Number(digits) : null);
        }}
      />
      <TextInput
        className={css.third}
        label="Currency"
        placeholder={business?.business.currency}
        maxLength={3}
        {...form.field('more.currency')}
        onChange={(e) => set('more.currency', e.currentTarget.value.toUpperCase())}
      />
      <NativeSelect
        className={css.third}
        label="Schedule its invoices begin with"
        data={[
          { value: '', label: 'as usual' },
          ...(kept.data ?? []).map((s) => ({ value: String(s.id), label: s.name })),
        ]}
        {...form.field('more.schedule')}
        value={values.more.schedule === null ? '' : String(values.more.schedule)}
        onChange={(e) => set('more.schedule', e.currentTarget.value ? Number(e.currentTarget.value) : null)}
      />
      <TextInput className={css.third} label="Tax exemption certificate" {...form.field('certificate')} />
      {values.certificate ? (
        <DayField
          className={css.third}
          label="The certificate’s last day"
          hint="if it has one"
          lean="coming"
          value={values.exemptUntil ?? ''}
          problem={form.form.errors.exemptUntil as string | undefined}
          onChange={(day) => set('exemptUntil', day || null)}
        />
      ) : (
        <span className={css.third} />
      )}
      {business && business.taxes.length > 0 && (
        <TaxTicks
          legend="Its lines begin with; none ticked: as usual"
          taxes={business.taxes}
          chosen={values.more.taxes}
          problem={form.form.errors['more.taxes']}
          onChange={(ids) => set('more.taxes', ids)}
        />
      )}

      <h2>Other contacts</h2>
      {contacts.map((c, i) => (
        <fieldset key={i} className={css.whole} style={{ border: 0, padding: 0, margin: 0 }}>
          <legend className="small faded">{c.name || 'Another contact'}</legend>
          <div className={css.form} style={{ marginTop: 4 }}>
            <TextInput
              className={css.third}
              label="Contact’s name"
              {...form.at('more.contacts', i, 'name')}
            />
            <TextInput
              className={css.third}
              label="Contact’s e-mail"
              {...form.at('more.contacts', i, 'email')}
            />
            <TextInput
              className={css.third}
              label="Contact’s telephone"
              {...form.at('more.contacts', i, 'phone')}
            />
            <div className={`${css.ticks} ${css.whole}`}>
              <Checkbox
                label="gets the reminders"
                checked={c.reminders}
                onChange={(e) => give('reminders', i, e.currentTarget.checked)}
              />
              <Checkbox
                label="pays, and gets the receipts"
                checked={c.receipts}
                onChange={(e) => give('receipts', i, e.currentTarget.checked)}
              />
              <button
                type="button"
                className="link"
                onClick={() => form.form.removeListItem('more.contacts', i)}
              >
                Remove {c.name || 'this contact'}
              </button>
            </div>
          </div>
        </fieldset>
      ))}
      {form.form.errors['more.contacts'] && (
        <p className={`problem ${css.whole}`}>{form.form.errors['more.contacts']}</p>
      )}
      <p className={css.whole} style={{ margin: 0 }}>
        <button
          type="button"
          className="link"
          onClick={() =>
            form.form.insertListItem('more.contacts', {
              name: '',
              email: '',
              phone: '',
              reminders: false,
              receipts: false,
            })
          }
        >
          + Another contact
        </button>
      </p>

      <h2>For yourself</h2>
      <TextInput className={css.third} label="Your number for it" {...form.field('more.number')} />
      <TagsInput
        className={css.third}
        label="Tags"
        placeholder={values.more.tags.length ? '' : 'school, yearly…'}
        {...form.field('more.tags')}
      />
      <Textarea
        className={css.third}
        label="Delivery address"
        autosize
        minRows={1}
        {...form.field('more.delivery')}
      />
      <Textarea
        className={css.whole}
        label="Private note, never sent"
        autosize
        minRows={2}
        {...form.field('more.notes')}
      />
      <div className={css.whole}>
        <Refusal error={form.elsewhere} />
        <Button type="submit" loading={form.save.isPending}>
          Save
        </Button>
      </div>
    </form>
  );
}
