import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import { planOf } from '../api/invoices';
import { longDate, money, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { PlanSelect } from './PlanSelect';
import css from './Reminders.module.css';

type Planned = Schemas['PlannedInstallment'];
type Row = { on: string; due: boolean; step: Schemas['PlannedStep'] | null };

const state: Record<string, string> = { USED: 'has gone', LAPSED: 'does not go', COMING: '' };

/** Steps and the due date on one line of time. */
function rows(i: Planned): Row[] {
  const steps: Row[] = i.steps.map((s) => ({ on: s.on, due: false, step: s }));
  if (!i.dueOn) return steps;
  const at = steps.findIndex((s) => s.on >= (i.dueOn ?? ''));
  const due: Row = { on: i.dueOn, due: true, step: null };
  return at < 0 ? [...steps, due] : [...steps.slice(0, at), due, ...steps.slice(at)];
}

function Installment({ of: i, named }: { of: Planned; named: string }) {
  return (
    <>
      {named && <h3 className={css.part}>{named}</h3>}
      <ol className={css.steps} aria-label={named || 'When reminders go'}>
        {rows(i).map((r) => (
          <li
            key={`${r.on}-${r.step?.words ?? 'due'}`}
            className={r.step ? css[r.step.state.toLowerCase()] : css.due}
          >
            <span
              className={`${css.knot} ${r.step ? (css[r.step.tone.toLowerCase()] ?? '') : css.dueKnot}`}
              aria-hidden="true"
            />
            <span className={css.when}>{shortDate(r.on)}</span>
            <span>
              {r.step ? r.step.words : 'due'}
              {r.step?.copy && ', a copy to you'}
              {r.step && state[r.step.state] && <span className="faded"> · {state[r.step.state]}</span>}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

/** When each step of the plan that holds goes for this document, and by which plan. */
export function PlanPicture({ id, fresh = '' }: { id: number; fresh?: string }) {
  const queries = useQueryClient();
  const picture = useQuery(planOf(id, fresh));
  const choose = useMutation({
    mutationFn: (body: Schemas['PlanChoice']) =>
      data(api.PUT('/api/invoices/{id}/reminder-plan', { params: { path: { id } }, body })),
    onSuccess: () => void queries.invalidateQueries(),
  });
  const p = picture.data;
  if (!p) return null;
  const several = p.installments.length > 1;
  return (
    <section className={css.picture} aria-label="Reminders">
      <h2>Reminders</h2>
      <PlanSelect
        label="By the plan"
        usual={p.choice.use === 'USUAL' ? `as its client: ${p.called}` : 'as its client'}
        choice={p.choice}
        onChoose={(c) => choose.mutate(c)}
      />
      <Refusal error={choose.error} />
      {!p.on && <p className="soon small">Reminders do not go by themselves; Settings says so.</p>}
      {p.mutedUntil && <p className="soon small">None goes until {longDate(p.mutedUntil)}.</p>}
      {p.installments.every((i) => i.steps.length === 0) ? (
        <p className="faded small">{p.installments.length ? 'No reminder goes.' : 'Nothing is open.'}</p>
      ) : (
        p.installments.map((i, n) => (
          <Installment key={n} of={i} named={several ? `${n + 1}: ${money(i.open)}` : ''} />
        ))
      )}
    </section>
  );
}
