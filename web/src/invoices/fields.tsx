import { lazy, type KeyboardEvent, Suspense, useState } from 'react';
import type { Schemas } from '../api/client';
import { useLooseDate } from '../design/useLooseDate';
import css from './Sheet.module.css';
import type { Line, Typed } from './useDraft';

const Calendar = lazy(() => import('../design/Calendar').then((m) => ({ default: m.Calendar })));

/** @param what which field is typed into, so that one step back takes what was typed into it in one go */
export type Change = (edit: (before: Typed) => Typed, what?: string) => void;

/** Told in words when something is taken off the sheet; one step back brings it back. */
export type Removed = (words: string) => void;

/** The key that takes a row off the sheet from within it; Ctrl Z brings it back. */
export const isRemoval = (event: { key: string; altKey: boolean }) => event.altKey && event.key === 'Delete';

/** What a part of the sheet is given. */
export interface SheetPart {
  typed: Typed;
  change: Change;
  reckoning: Schemas['Reckoning'] | null;
  taxes: Schemas['TaxView'][];
  of: (field: string) => string | undefined;
  onRemoved: Removed;
}

export function FieldProblem({ text, id }: { text: string | undefined; id?: string }) {
  return text ? (
    <p className="problem" role="alert" id={id}>
      {text}
    </p>
  ) : null;
}

/** Says which of two numbers was understood where a text could mean either. */
export function Understood({ reckoning, field }: { reckoning: Schemas['Reckoning'] | null; field: string }) {
  const as = reckoning?.understood.find((u) => u.field === field)?.as;
  return as ? <p className="faded small understood">read as {as}</p> : null;
}

export type TextField = 'subject' | 'reference' | 'project' | 'notes' | 'terms' | 'memo' | 'prepaid' | 'rate';

/** Enter leads on to the next field of the sheet, as Tab does. */
export function onward(event: KeyboardEvent<HTMLElement>) {
  if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || event.shiftKey) return;
  const sheet = event.currentTarget.closest('.sheet');
  const fields = [
    ...(sheet?.querySelectorAll<HTMLElement>('input:not([type=checkbox]), textarea, select') ?? []),
  ].filter((e) => e.tabIndex >= 0 && e.offsetParent !== null);
  const next = fields[fields.indexOf(event.currentTarget) + 1];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

/** A field of the sheet that is edited where it will be printed. */
export function SheetField({
  name,
  label,
  typed,
  change,
  of,
  hint,
  long,
  className,
  autoFocus,
}: {
  name: TextField;
  label: string;
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
  hint?: string;
  long?: boolean;
  className?: string | undefined;
  autoFocus?: boolean;
}) {
  const problem = of(name);
  const common = {
    className: 'cell',
    value: typed[name] ?? '',
    placeholder: hint,
    autoFocus,
    'data-field': name,
    'aria-invalid': Boolean(problem),
    'aria-describedby': problem ? `${name}-problem` : undefined,
    onChange: (e: { target: { value: string } }) => {
      const { value } = e.target;
      change((t) => ({ ...t, [name]: value }), name);
    },
  };
  return (
    <label className={`field ${className ?? ''}`}>
      <span>{label}</span>
      {long ? <textarea {...common} /> : <input type="text" {...common} onKeyDown={onward} />}
      <FieldProblem text={problem} id={`${name}-problem`} />
    </label>
  );
}

/** A day on the sheet, as people type it, with a calendar beside. */
export function SheetDay({
  name,
  label,
  hint,
  typed,
  change,
  of,
  autoFocus,
}: {
  name: 'supplyDate' | 'supplyEnd';
  label: string;
  hint?: string;
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
  autoFocus?: boolean;
}) {
  const set = (value: string) => change((t) => (t[name] === value ? t : { ...t, [name]: value }), name);
  const day = useLooseDate(typed[name] ?? '', set, 'near');
  const [calendar, setCalendar] = useState(false);
  const problem = day.problem ?? of(name);
  return (
    <div className={css.day}>
      <label className="field">
        <span>{label}</span>
        <input
          className="cell"
          placeholder={hint}
          autoFocus={autoFocus}
          aria-invalid={Boolean(problem)}
          aria-describedby={problem ? `${name}-problem` : undefined}
          value={day.input.value}
          onChange={(e) => day.input.onChange(e.target.value)}
          onBlur={day.input.onBlur}
          onKeyDown={onward}
        />
        {day.understood && <span className="understood">{day.understood}</span>}
      </label>
      <button
        type="button"
        className={css.calendar}
        aria-label="Choose the day from a calendar"
        tabIndex={-1}
        onClick={() => setCalendar(true)}
      >
        <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
          <path
            d="M1 3h12v10H1zM1 6h12M4 1v3M10 1v3M4 8.5h1M7 8.5h1M10 8.5h0M4 11h1M7 11h1"
            fill="none"
            stroke="currentColor"
          />
        </svg>
      </button>
      {calendar && (
        <Suspense fallback={null}>
          <Calendar
            title={label}
            value={typed[name] ?? ''}
            onChoose={(chosen) => {
              set(chosen);
              setCalendar(false);
            }}
            onClose={() => setCalendar(false)}
          />
        </Suspense>
      )}
      <FieldProblem text={problem} id={`${name}-problem`} />
    </div>
  );
}

/** A line on which nothing is written yet. */
export const blankLine = (taxes: string[]): Line => ({
  description: '',
  quantity: '',
  unit: '',
  unitPrice: '',
  discount: '',
  taxes,
  item: null,
  note: null,
  serial: null,
  category: null,
  choice: null,
  of: null,
});

export const isBlank = (line: Line | undefined): boolean =>
  !line || !(line.description || line.quantity || line.unitPrice || line.discount);

/** The tax that a new line begins with: the first that is offered. */
export function usualTax(taxes: Schemas['TaxView'][]): string[] {
  return taxes
    .filter((t) => !t.retired)
    .slice(0, 1)
    .map((t) => t.id);
}
