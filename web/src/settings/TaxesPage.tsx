import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { longDate } from '../design/format';
import { Sideways } from '../design/Sideways';
import { Loaded, Refusal } from '../design/States';
import { useTitle } from '../design/useTitle';
import { business as businessQuery } from '../api/business';
import css from './Settings.module.css';

type View = Schemas['BusinessView'];

const categories = [
  { value: 'S', label: 'S: at a rate' },
  { value: 'Z', label: 'Z: zero rated' },
  { value: 'E', label: 'E: exempt' },
  { value: 'AE', label: 'AE: reverse charge, the client pays the tax' },
  { value: 'K', label: 'K: supply within the Union' },
  { value: 'G', label: 'G: export' },
  { value: 'O', label: 'O: outside the scope of tax' },
];
const words: Record<string, string> = Object.fromEntries(
  categories.map((c) => [c.value, c.label.slice(c.value.length + 2)]),
);
const needsReason = (category: string) => !['S', 'Z'].includes(category);

function List({ view }: { view: View }) {
  const queries = useQueryClient();
  const retire = useMutation({
    mutationFn: ({ id, retired }: { id: string; retired: boolean }) =>
      data(api.PUT('/api/business/taxes/{id}/retired', { params: { path: { id } }, body: { retired } })),
    onSuccess: () => void queries.invalidateQueries(),
  });
  return (
    <>
      <Sideways label="Taxes">
        <table className="ledger">
          <thead>
            <tr>
              <th>Name, as printed</th>
              <th className="n">Rate</th>
              <th>Category</th>
              <th aria-label="Offer it or not" />
            </tr>
          </thead>
          <tbody>
            {view.taxes.map((t) => (
              <tr key={t.id} className={t.retired ? 'faded' : undefined}>
                <td>
                  {t.name}
                  {t.compound && <span className="faded small"> on the taxes before it, too</span>}
                  {t.reason && <div className="faded small">{t.reason}</div>}
                </td>
                <td className="n">{t.category === 'S' ? `${t.rate}%` : '–'}</td>
                <td>
                  {t.category} <span className="faded small">{words[t.category]}</span>
                </td>
                <td className="n">
                  {t.id !== 'none' && (
                    <button
                      type="button"
                      className="link"
                      aria-label={`${t.retired ? 'Offer again' : 'Retire'}: ${t.name}`}
                      onClick={() => retire.mutate({ id: t.id, retired: !t.retired })}
                    >
                      {t.retired ? 'Offer again' : 'Retire'}
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Sideways>
      <Refusal error={retire.error} />
      <p className="faded small">
        The first tax is what a new line begins with. A tax is never changed, since documents name it: add
        another and offer the old one no longer.
      </p>
    </>
  );
}

const none = { name: '', rate: '', category: 'S', compound: false, reason: '' };

function Add() {
  const [form, setForm] = useState(none);
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: () => data(api.POST('/api/business/taxes', { body: form })),
    onSuccess: () => {
      setForm(none);
      void queries.invalidateQueries();
    },
  });
  const set = (field: 'name' | 'rate' | 'reason') => ({
    value: form[field],
    error: problemOf(add.error, field),
    onChange: (e: { currentTarget: { value: string } }) => {
      const { value } = e.currentTarget;
      setForm((f) => ({ ...f, [field]: value }));
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };
  const shown = ['name', 'rate', 'reason', 'category'].some((f) => problemOf(add.error, f));
  return (
    <form className="form" onSubmit={submit} noValidate>
      <h2>Another tax</h2>
      <TextInput label="Name, as printed" placeholder="VAT 6%" {...set('name')} />
      <Select
        label="Category"
        data={categories}
        value={form.category}
        allowDeselect={false}
        onChange={(v) => setForm((f) => ({ ...f, category: v ?? 'S' }))}
      />
      {form.category === 'S' && (
        <>
          <TextInput label="Rate in percent" inputMode="decimal" {...set('rate')} />
          <Checkbox
            label="Compound: on the net and the taxes before it on the line"
            checked={form.compound}
            onChange={(e) => {
              const { checked } = e.currentTarget;
              setForm((f) => ({ ...f, compound: checked }));
            }}
          />
        </>
      )}
      {needsReason(form.category) && (
        <TextInput label="Reason, as printed; it is asked for by law" {...set('reason')} />
      )}
      {!shown && <Refusal error={add.error} />}
      <Button type="submit" variant="outline" loading={add.isPending}>
        Add it
      </Button>
    </form>
  );
}

function Rates({ view }: { view: View }) {
  const [form, setForm] = useState({ currency: '', fromOn: '', rate: '' });
  const queries = useQueryClient();
  const note = useMutation({
    mutationFn: () => data(api.POST('/api/business/rates', { body: form })),
    onSuccess: () => {
      setForm({ currency: '', fromOn: '', rate: '' });
      void queries.invalidateQueries();
    },
  });
  const set = (field: keyof typeof form) => ({
    value: form[field],
    error: problemOf(note.error, field),
    onChange: (e: { currentTarget: { value: string } }) => {
      const { value } = e.currentTarget;
      setForm((f) => ({ ...f, [field]: value }));
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    note.mutate();
  };
  return (
    <form className="form" onSubmit={submit} noValidate>
      <h2>Other currencies</h2>
      <p className="faded small">
        The books are kept in {view.business.currency}. An invoice in another currency takes the latest rate
        of its day, unless it names its own.
      </p>
      {view.rates.length > 0 && (
        <Sideways label="Rates">
          <table className="ledger">
            <tbody>
              {view.rates.map((r) => (
                <tr key={r.currency + r.fromOn}>
                  <td>1 {r.currency}</td>
                  <td className="n">
                    {r.rate} {view.business.currency}
                  </td>
                  <td className="n faded">from {longDate(r.fromOn)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Sideways>
      )}
      <TextInput label="Currency, three letters" placeholder="GBP" maxLength={3} {...set('currency')} />
      <TextInput
        label={`What 1 of it is in ${view.business.currency}`}
        inputMode="decimal"
        placeholder="1.17"
        {...set('rate')}
      />
      <TextInput label="From which day; today if left empty" type="date" {...set('fromOn')} />
      <Button type="submit" variant="outline" loading={note.isPending}>
        Note the rate
      </Button>
    </form>
  );
}

/** Taxes with their categories and reasons, and rates of other currencies. */
export function TaxesPage() {
  useTitle('Taxes');
  const view = useQuery(businessQuery);
  return (
    <Loaded query={view} what="the taxes">
      {(v) => (
        <>
          <h1>Taxes and currencies</h1>
          <div className={css.pair}>
            <div>
              <List view={v} />
              {v.business.registered ? (
                <Add />
              ) : (
                <p>
                  The business is not registered for tax: everything is issued outside its scope. Registering
                  is a tick in <Link to="/settings">Settings</Link>.
                </p>
              )}
            </div>
            <Rates view={v} />
          </div>
        </>
      )}
    </Loaded>
  );
}
