import { Checkbox } from '@mantine/core';
import { useState } from 'react';
import { type Change, FieldProblem } from './fields';
import type { Typed } from './useDraft';

const NOTHING: NonNullable<Typed['plan']> = { most: '', first: '', discount: '', acceptance: false };

/** What an invoice offers before it is paid: installments to pick from, something off for paying at once, a text to accept. */
export function PlanFields({
  typed,
  change,
  of,
}: {
  typed: Typed;
  change: Change;
  of: (field: string) => string | undefined;
}) {
  // By hand, so that the focus goes along; null where nobody has. What is taken back or brought again shows by itself.
  const [byHand, setByHand] = useState<boolean | null>(null);
  const open = byHand === true || typed.plan !== null;
  const plan = typed.plan ?? NOTHING;
  const set = (part: Partial<typeof plan>) =>
    change((t) => ({ ...t, plan: { ...(t.plan ?? NOTHING), ...part } }), `plan.${Object.keys(part).join()}`);
  if (!open)
    return (
      <p className="adding">
        <button type="button" className="link" autoFocus={byHand === false} onClick={() => setByHand(true)}>
          + Let the client choose how to pay
        </button>
      </p>
    );
  const field = (name: 'most' | 'first' | 'discount', label: string, placeholder: string) => (
    <label style={{ display: 'block', margin: '6px 0' }}>
      <span className="small faded">{label}</span>
      <input
        className="cell"
        style={{ display: 'block', width: '100%' }}
        placeholder={placeholder}
        autoFocus={byHand === true && name === 'most'}
        value={plan[name]}
        aria-invalid={Boolean(of(`plan.${name}`))}
        onChange={(e) => set({ [name]: e.target.value })}
      />
      <FieldProblem text={of(`plan.${name}`)} />
    </label>
  );
  return (
    <fieldset style={{ border: 0, padding: 0, margin: '10px 0' }}>
      <legend className="small">
        <b>The client may choose</b>{' '}
        <button
          type="button"
          className="link small"
          onClick={() => {
            change((t) => ({ ...t, plan: null }));
            setByHand(false);
          }}
        >
          Offer nothing
        </button>
      </legend>
      {field('most', 'Monthly installments, at most', 'none; or 2 to 24')}
      {field('first', 'The first of them, or all at once, by', '30 days after issue')}
      {field('discount', 'Off for paying all at once by then', 'nothing; 10% or 25.00')}
      <Checkbox
        size="sm"
        label="Text and files are accepted by name before anything is picked or paid"
        checked={plan.acceptance}
        onChange={(e) => set({ acceptance: e.currentTarget.checked })}
      />
    </fieldset>
  );
}
