import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { ClientCell } from './ClientCell';
import { type Change, FieldProblem, onward, SheetDay, SheetField } from './fields';
import css from './Sheet.module.css';
import type { Typed } from './useDraft';
import { useLooseDate } from '../design/useLooseDate';
import { usePhone } from '../design/useNarrow';

type Business = Schemas['BusinessView'];

/** A field that most invoices do without: it stands on the sheet once it has a value, or was called for. */
interface Called {
  name: string;
  words: string;
  has: (t: Typed) => boolean;
}

const calledOf = (business: Business): Called[] => [
  { name: 'supplyEnd', words: 'Until, if a period', has: (t) => Boolean(t.supplyEnd) },
  { name: 'reference', words: 'Their order', has: (t) => Boolean(t.reference) },
  { name: 'project', words: 'Project', has: (t) => Boolean(t.project) },
  ...business.documents.labels.map((label) => ({
    name: `fields.${label}`,
    words: label,
    has: (t: Typed) => Boolean(t.fields[label]),
  })),
  { name: 'currency', words: 'Currency', has: (t) => t.currency !== business.business.currency },
  { name: 'taxInside', words: 'Prices with the tax in them', has: (t) => t.taxInside },
  { name: 'cash', words: 'Paid in cash', has: (t) => t.cash },
];

function Tick({
  label,
  checked,
  onChange,
}: {
  label: string;
  checked: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="field">
      <span>&nbsp;</span>
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} /> {label}
    </label>
  );
}

/** Until when a quote can be accepted. */
function ValidUntil({
  typed,
  change,
  of,
}: {
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
}) {
  const set = (validUntil: string) =>
    change(
      (t) =>
        t.offer?.validUntil === validUntil ? t : { ...t, offer: { conditions: '', ...t.offer, validUntil } },
      'validUntil',
    );
  const day = useLooseDate(typed.offer?.validUntil ?? '', set, 'coming');
  const problem = of('offer.validUntil') ?? day.problem;
  return (
    <label className="field">
      <span>Holds until</span>
      <input
        className="cell"
        data-field="offer.validUntil"
        placeholder="30 Apr, or +30"
        aria-invalid={Boolean(problem)}
        value={day.input.value}
        onChange={(e) => day.input.onChange(e.target.value)}
        onBlur={day.input.onBlur}
        onKeyDown={onward}
      />
      {day.understood && <p className="faded small understood">{day.understood}</p>}
      <FieldProblem text={problem} />
    </label>
  );
}

/** Whom the sheet is for, what for and when; and what else was called for. */
export function SheetBand({
  title,
  typed,
  change,
  of,
  business,
  client,
  number,
  onClient,
  onNewClient,
}: {
  /** What it is: Invoice, or Quote. */
  title: string;
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
  business: Business;
  client: Schemas['Client'] | undefined;
  number: string | null;
  onClient: (id: number) => void;
  onNewClient: () => void;
}) {
  const [called, setCalled] = useState<string[]>([]);
  const [more, setMore] = useState(false);
  const phone = usePhone();
  const field = { typed, change, of };
  const all = calledOf(business).filter((c) => !typed.offer || !['supplyEnd', 'cash'].includes(c.name));
  const here = (c: Called) => called.includes(c.name) || c.has(typed) || Boolean(of(c.name));
  const shown = all.filter(here).map((c) => c.name);
  const fresh = (name: string) => called.at(-1) === name;
  const own = business.business;
  const currencyProblem = of('currency');
  return (
    <>
      <div className={css.top}>
        <Link to="/settings" title="Change the business’s details">
          {own.name}
        </Link>
        <div className={css.kind}>
          <b>{title}</b>{' '}
          <span className="small">{number ? `keeps its number, ${number}` : 'numbered when issued'}</span>
        </div>
      </div>
      <div className={css.band}>
        <ClientCell
          typed={typed}
          client={client}
          change={change}
          problem={of('clientId') ?? of('client.email')}
          onChosen={onClient}
          onNewClient={onNewClient}
        />
        <SheetField name="subject" label="For" hint="what it is for, in a few words" {...field} />
        {typed.offer ? (
          <ValidUntil {...field} />
        ) : (
          <SheetDay name="supplyDate" label="Supplied on, or from" {...field} />
        )}
      </div>
      {shown.length > 0 && (
        <div className={css.called}>
          {shown.includes('supplyEnd') && (
            <SheetDay
              name="supplyEnd"
              label="Until"
              hint="left out if one day"
              autoFocus={fresh('supplyEnd')}
              {...field}
            />
          )}
          {shown.includes('reference') && (
            <SheetField
              name="reference"
              label="Their order"
              hint="number, if they gave one"
              autoFocus={fresh('reference')}
              {...field}
            />
          )}
          {shown.includes('project') && (
            <SheetField
              name="project"
              label="Project"
              hint="name or number"
              autoFocus={fresh('project')}
              {...field}
            />
          )}
          {business.documents.labels
            .filter((label) => shown.includes(`fields.${label}`))
            .map((label) => (
              <label key={label} className="field">
                <span>{label}</span>
                <input
                  className="cell"
                  autoFocus={fresh(`fields.${label}`)}
                  value={typed.fields[label] ?? ''}
                  aria-invalid={Boolean(of(`fields.${label}`))}
                  onKeyDown={onward}
                  onChange={(e) => {
                    const { value } = e.target;
                    change((t) => ({ ...t, fields: { ...t.fields, [label]: value } }), `fields.${label}`);
                  }}
                />
                <FieldProblem text={of(`fields.${label}`)} />
              </label>
            ))}
          {shown.includes('currency') && (
            <label className="field">
              <span>Currency</span>
              <input
                className="cell"
                autoFocus={fresh('currency')}
                value={typed.currency ?? ''}
                maxLength={3}
                aria-invalid={Boolean(currencyProblem)}
                onKeyDown={onward}
                onChange={(e) => {
                  const currency = e.target.value.toUpperCase();
                  change((t) => ({ ...t, currency }), 'currency');
                }}
              />
              <FieldProblem text={currencyProblem} />
            </label>
          )}
          {typed.currency !== own.currency && (
            <SheetField
              name="rate"
              label={`Rate: 1 ${typed.currency} in ${own.currency}`}
              hint={business.rates.find((r) => r.currency === typed.currency)?.rate ?? 'rate'}
              {...field}
            />
          )}
          {shown.includes('taxInside') && (
            <Tick
              label="prices include the tax"
              checked={typed.taxInside}
              onChange={(on) => change((t) => ({ ...t, taxInside: on }))}
            />
          )}
          {shown.includes('cash') && (
            <Tick
              label="paid in cash"
              checked={typed.cash}
              onChange={(on) => change((t) => ({ ...t, cash: on }))}
            />
          )}
        </div>
      )}
      <p className={css.call}>
        {phone && !more && (
          <button type="button" onClick={() => setMore(true)}>
            + A further field
          </button>
        )}
        {(phone && !more ? [] : all)
          .filter((c) => !here(c))
          .map((c) => (
            <button
              key={c.name}
              type="button"
              onClick={() => {
                setCalled((names) => [...names, c.name]);
                // A tick that was called for is wanted.
                if (c.name === 'taxInside' || c.name === 'cash') change((t) => ({ ...t, [c.name]: true }));
              }}
            >
              + {c.words}
            </button>
          ))}
      </p>
    </>
  );
}
