import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { problemOf, type Schemas } from '../api/client';
import css from './Settings.module.css';

export type Step = Schemas['TypedStep'];

const tones = [
  { value: 'FRIENDLY', label: 'friendly' },
  { value: 'FIRM', label: 'firm' },
  { value: 'FINAL', label: 'final' },
];

const ways = [
  { value: 'MAIL', label: 'by e-mail' },
  { value: 'TEXT', label: 'by text message' },
];

/** Where a step lies: before, on or after the due date. */
const when = (step: Step): 'before' | 'on' | 'after' =>
  step.before ? 'before' : step.days.trim() === '0' ? 'on' : 'after';

function StepRow({
  step,
  at,
  error,
  onChange,
  onRemove,
}: {
  step: Step;
  at: number;
  error: unknown;
  onChange: (next: Step) => void;
  onRemove: () => void;
}) {
  const side = when(step);
  const lies = (next: string) =>
    onChange({
      ...step,
      before: next === 'before',
      days: next === 'on' ? '0' : side === 'on' ? '3' : step.days,
    });
  return (
    <li className={`plan-step ${css.planStep}`}>
      <span className={`${css.knot} ${css[step.tone.toLowerCase()] ?? ''}`} aria-hidden="true" />
      {side !== 'on' && (
        <TextInput
          size="xs"
          aria-label={`Days, step ${at + 1}`}
          value={step.days}
          w={64}
          onChange={(e) => onChange({ ...step, days: e.currentTarget.value })}
        />
      )}
      <NativeSelect
        size="xs"
        aria-label={`When, step ${at + 1}`}
        value={side}
        onChange={(e) => lies(e.currentTarget.value)}
        data={[
          { value: 'before', label: 'days before the due date' },
          { value: 'on', label: 'on the due date' },
          { value: 'after', label: 'days after the due date' },
        ]}
      />
      <NativeSelect
        size="xs"
        aria-label={`Tone, step ${at + 1}`}
        value={step.tone}
        data={tones}
        onChange={(e) => onChange({ ...step, tone: e.currentTarget.value })}
      />
      <NativeSelect
        size="xs"
        aria-label={`Way, step ${at + 1}`}
        value={step.way}
        data={ways}
        onChange={(e) => onChange({ ...step, way: e.currentTarget.value })}
      />
      <Checkbox
        size="xs"
        label="a copy to me"
        aria-label={`A copy to me, step ${at + 1}`}
        checked={step.copy}
        onChange={(e) => onChange({ ...step, copy: e.currentTarget.checked })}
      />
      <button type="button" className="link" onClick={onRemove} aria-label={`Remove step ${at + 1}`}>
        Remove
      </button>
      {['days', 'tone', 'way'].map((field) => {
        const problem = problemOf(error, `steps[${at}].${field}`);
        return (
          problem && (
            <span key={field} className="problem" role="alert">
              {problem}
            </span>
          )
        );
      })}
    </li>
  );
}

/** The steps of a plan, in the order in which they were typed. */
export function PlanSteps({
  steps,
  error,
  onChange,
}: {
  steps: Step[];
  error: unknown;
  onChange: (steps: Step[]) => void;
}) {
  return (
    <>
      <ol className={css.planSteps} aria-label="Steps">
        {steps.map((s, i) => (
          <StepRow
            key={i}
            step={s}
            at={i}
            error={error}
            onChange={(next) => onChange(steps.map((o, j) => (i === j ? next : o)))}
            onRemove={() => onChange(steps.filter((_, j) => j !== i))}
          />
        ))}
      </ol>
      <button
        type="button"
        className="link"
        onClick={() =>
          onChange([...steps, { days: '30', before: false, tone: 'FINAL', way: 'MAIL', copy: false }])
        }
      >
        Add a step
      </button>
    </>
  );
}
