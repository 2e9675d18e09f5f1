import { Button, Checkbox, ColorInput, NativeSelect, Radio, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';
import { useTitle } from '../design/useTitle';
import { tell } from '../design/tell';
import { business as businessQuery } from '../api/business';
import css from './Settings.module.css';

type Setting = Schemas['DocumentSetting'];

const layouts = [
  {
    value: 'ledger',
    name: 'Ledger',
    text: 'Who you are at the left, the number at the right, hairlines between the lines.',
  },
  {
    value: 'letter',
    name: 'Letter',
    text: 'The address where a window envelope shows it, the facts in a column, no lines drawn.',
  },
];

const shows = [
  ['quantity', 'Quantity and price', 'Each line says how much of what, at which price.'],
  ['hours', 'Hours and rate', 'For those who sell time: the columns are headed Hours and Rate.'],
  [
    'amount',
    'The amount only',
    'Many countries ask an invoice to say how much of what: say it in the words of the line.',
  ],
] as const;

const typefaces = [
  ['two', 'Vollkorn for names, Atkinson else'],
  ['plain', 'Atkinson throughout'],
  ['noto', 'Noto Sans throughout'],
] as const;

/** A layout in small, drawn like the page it prints. */
function Drawn({ layout }: { layout: string }) {
  const letter = layout === 'letter';
  return (
    <svg viewBox="0 0 90 120" width={90} height={120} aria-hidden="true" className={css.drawn}>
      <rect x={0.5} y={0.5} width={89} height={119} fill="var(--sheet)" stroke="var(--rule)" />
      {letter ? (
        <>
          <rect x={8} y={16} width={34} height={18} fill="none" stroke="var(--rule)" />
          <rect x={11} y={20} width={22} height={2} fill="var(--ink)" />
          <rect x={11} y={25} width={16} height={2} fill="var(--faded)" />
          <rect x={58} y={9} width={24} height={4} fill="var(--ink)" />
          <rect x={8} y={42} width={46} height={4} fill="var(--ink)" />
          <rect x={8} y={48} width={74} height={1.2} fill="var(--act)" />
          <rect x={8} y={60} width={74} height={6} fill="var(--rule)" />
        </>
      ) : (
        <>
          <rect x={8} y={9} width={30} height={4} fill="var(--ink)" />
          <rect x={8} y={16} width={20} height={2} fill="var(--faded)" />
          <rect x={56} y={9} width={26} height={4} fill="var(--ink)" />
          <rect x={8} y={32} width={26} height={3} fill="var(--ink)" />
          <rect x={8} y={60} width={74} height={0.8} fill="var(--ink)" />
        </>
      )}
      {[70, 78, 86].map((y) => (
        <g key={y}>
          <rect x={8} y={y} width={40} height={2} fill="var(--faded)" />
          <rect x={68} y={y} width={14} height={2} fill="var(--faded)" />
          {!letter && <rect x={8} y={y + 4.5} width={74} height={0.5} fill="var(--rule)" />}
        </g>
      ))}
      <rect x={56} y={99} width={26} height={4} fill="var(--ink)" />
    </svg>
  );
}

function Form({ setting }: { setting: Setting }) {
  const [form, setForm] = useState(setting);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/business/documents', { body: form })),
    onSuccess: (kept) => {
      setForm(kept);
      void queries.invalidateQueries();
      tell('The settings are kept. Issued documents stay as they are.');
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const setLabel = (place: number, label: string) =>
    setForm((f) => ({ ...f, labels: f.labels.map((l, i) => (i === place ? label : l)) }));
  const setCoin = (place: number, part: Partial<Setting['coins'][number]>) =>
    setForm((f) => ({ ...f, coins: f.coins.map((c, i) => (i === place ? { ...c, ...part } : c)) }));
  const anyShown =
    ['layout', 'lineShows', 'typeface', 'terms', 'labels', 'accent'].some((f) => problemOf(save.error, f)) ||
    form.labels.some((_, i) => problemOf(save.error, `labels[${i}]`)) ||
    form.coins.some((_, i) => ['currency', 'step'].some((f) => problemOf(save.error, `coins[${i}].${f}`)));
  return (
    <form className="form" style={{ maxWidth: 620 }} onSubmit={submit} noValidate>
      <fieldset className={css.layouts}>
        <legend>How they are printed</legend>
        {layouts.map((l) => (
          <label key={l.value}>
            <input
              type="radio"
              name="layout"
              checked={form.layout === l.value}
              onChange={() => setForm((f) => ({ ...f, layout: l.value }))}
            />
            <Drawn layout={l.value} />
            <span>
              <b>{l.name}</b>
              <br />
              <span className="faded small">{l.text}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <Radio.Group
        label="What a line shows"
        value={form.lineShows}
        error={problemOf(save.error, 'lineShows')}
        onChange={(lineShows) => setForm((f) => ({ ...f, lineShows }))}
      >
        {shows.map(([value, label, description]) => (
          <Radio key={value} mt={6} value={value} label={label} description={description} />
        ))}
      </Radio.Group>
      <NativeSelect
        label="Typeface"
        data={typefaces.map(([value, label]) => ({ value, label }))}
        value={form.typeface}
        error={problemOf(save.error, 'typeface')}
        onChange={(e) => {
          const typeface = e.currentTarget.value;
          setForm((f) => ({ ...f, typeface }));
        }}
      />
      <ColorInput
        label="Colour of headings on paper"
        description="Empty: the usual ink. What is too pale to be read on white is refused."
        placeholder="#1f665c"
        format="hex"
        withPicker={false}
        swatches={['#1f665c', '#232a3d', '#8c2f2b', '#5b3f8c', '#1d4f91', '#6b4e16']}
        eyeDropperButtonProps={{ 'aria-label': 'Take a colour from the screen' }}
        popoverProps={{ withinPortal: true }}
        value={form.accent}
        error={problemOf(save.error, 'accent')}
        onChange={(accent) => setForm((f) => ({ ...f, accent }))}
      />
      <Checkbox
        label="What is not paid bears its page’s address and a square code"
        description="For whoever has only the paper. A paper of what is settled bears neither."
        checked={form.pageOnPaper}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setForm((f) => ({ ...f, pageOnPaper: checked }));
        }}
      />
      <Textarea
        label="Terms that a new invoice begins with"
        autosize
        minRows={2}
        value={form.terms}
        error={problemOf(save.error, 'terms')}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setForm((f) => ({ ...f, terms: value }));
        }}
      />
      <h2>Fields of your own</h2>
      <p className="faded small">
        Each stands on the sheet with its label, and is printed where it is filled in.
      </p>
      {form.labels.map((label, i) => (
        <TextInput
          key={i}
          aria-label={`Label ${i + 1}`}
          value={label}
          error={problemOf(save.error, `labels[${i}]`)}
          onChange={(e) => setLabel(i, e.currentTarget.value)}
        />
      ))}
      <p>
        <button
          type="button"
          className="link"
          onClick={() => setForm((f) => ({ ...f, labels: [...f.labels, ''] }))}
        >
          + A field
        </button>
      </p>
      <h2>Cash rounding</h2>
      <p className="faded small">
        What is paid in cash is rounded to the smallest coin. Net and tax stay as they are; the cents are a
        figure of their own.
      </p>
      {form.coins.map((coin, i) => (
        <div key={i} className={css.coin}>
          <TextInput
            aria-label={`Currency of coin ${i + 1}`}
            placeholder="EUR"
            maxLength={3}
            value={coin.currency}
            error={problemOf(save.error, `coins[${i}].currency`)}
            onChange={(e) => setCoin(i, { currency: e.currentTarget.value.toUpperCase() })}
          />
          <TextInput
            aria-label={`Smallest coin ${i + 1}`}
            placeholder="0.05"
            inputMode="decimal"
            value={coin.step}
            error={problemOf(save.error, `coins[${i}].step`)}
            onChange={(e) => setCoin(i, { step: e.currentTarget.value })}
          />
          <button
            type="button"
            className="link"
            aria-label={`Remove coin ${i + 1}`}
            onClick={() => setForm((f) => ({ ...f, coins: f.coins.filter((_, n) => n !== i) }))}
          >
            Remove
          </button>
        </div>
      ))}
      <p>
        <button
          type="button"
          className="link"
          onClick={() => setForm((f) => ({ ...f, coins: [...f.coins, { currency: '', step: '' }] }))}
        >
          + A currency that rounds
        </button>
      </p>
      {!anyShown && <Refusal error={save.error} />}
      <Button type="submit" loading={save.isPending}>
        Save
      </Button>
    </form>
  );
}

/** How documents look and what they say. */
export function PapersPage() {
  useTitle('Papers');
  const view = useQuery(businessQuery);
  return (
    <Loaded query={view} what="the settings">
      {(v) => (
        <>
          <h1>Documents</h1>
          <Form setting={v.documents} />
        </>
      )}
    </Loaded>
  );
}
