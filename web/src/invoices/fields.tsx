import type { Schemas } from '../api/client';
import { useLooseDate } from '../design/useLooseDate';
import type { Typed } from './useDraft';

export type Change = (edit: (before: Typed) => Typed) => void;

/** Told when something is taken off the sheet, with how it comes back. */
export type Removed = (words: string, back: (now: Typed) => Typed) => void;

/** The key that takes a row off the sheet from within it; Ctrl Z brings it back. */
export const isRemoval = (event: { key: string; altKey: boolean }) => event.altKey && event.key === 'Delete';

/** A list with what was taken out of it back in its place. */
export const putBack = <T,>(list: T[], place: number, gone: T): T[] => [
  ...list.slice(0, place),
  gone,
  ...list.slice(place),
];

/** What a part of the sheet is given. */
export interface SheetPart {
  typed: Typed;
  change: Change;
  reckoning: Schemas['Reckoning'] | null;
  taxes: Schemas['TaxView'][];
  of: (field: string) => string | undefined;
  onRemoved: Removed;
}

export function FieldProblem({ text }: { text: string | undefined }) {
  return text ? (
    <p className="problem" role="alert">
      {text}
    </p>
  ) : null;
}

/** Says which of two numbers was understood where a text could mean either. */
export function Understood({ reckoning, field }: { reckoning: Schemas['Reckoning'] | null; field: string }) {
  const as = reckoning?.understood.find((u) => u.field === field)?.as;
  return as ? <p className="faded small understood">read as {as}</p> : null;
}

type TextField = 'subject' | 'reference' | 'project' | 'notes' | 'terms' | 'memo' | 'prepaid' | 'rate';

/** A field of the sheet that is edited where it will be printed. */
export function SheetField({
  name,
  label,
  typed,
  change,
  of,
  hint,
  long,
}: {
  name: TextField;
  label: string;
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
  hint?: string;
  long?: boolean;
}) {
  const common = {
    className: 'cell',
    value: typed[name] ?? '',
    placeholder: hint,
    'aria-invalid': Boolean(of(name)),
    onChange: (e: { target: { value: string } }) => {
      const { value } = e.target;
      change((t) => ({ ...t, [name]: value }));
    },
  };
  return (
    <label className="field">
      <span>{label}</span>
      {long ? <textarea {...common} /> : <input type="text" {...common} />}
      <FieldProblem text={of(name)} />
    </label>
  );
}

/** A day on the sheet, as people type it. */
export function SheetDay({
  name,
  label,
  hint,
  typed,
  change,
  of,
}: {
  name: 'supplyDate' | 'supplyEnd';
  label: string;
  hint?: string;
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
}) {
  const day = useLooseDate(
    typed[name] ?? '',
    (value) => change((t) => (t[name] === value ? t : { ...t, [name]: value })),
    'near',
  );
  const problem = day.problem ?? of(name);
  return (
    <label className="field small right">
      <span>{label}</span>
      <input
        className="cell"
        placeholder={hint}
        aria-invalid={Boolean(problem)}
        value={day.input.value}
        onChange={(e) => day.input.onChange(e.target.value)}
        onBlur={day.input.onBlur}
      />
      {day.understood && <span className="understood">{day.understood}</span>}
      <FieldProblem text={problem} />
    </label>
  );
}

/** The tax that a new line begins with: the first that is offered. */
export function usualTax(taxes: Schemas['TaxView'][]): string[] {
  return taxes
    .filter((t) => !t.retired)
    .slice(0, 1)
    .map((t) => t.id);
}
