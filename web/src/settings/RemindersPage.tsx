import { Button, Checkbox, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';
import { LateFeeFields, policyInMark } from './LateFeeFields';
import { useTitle } from '../design/useTitle';

type Plan = Schemas['TypedPlan'];
type Step = Schemas['TypedStep'];
const done = (message: string) =>
  notifications.show({ message, closeButtonProps: { 'aria-label': 'Close' } });

const tones = [
  { value: 'FRIENDLY', label: 'friendly' },
  { value: 'FIRM', label: 'firm' },
  { value: 'FINAL', label: 'final' },
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
    <li className="plan-step">
      <span className={`knot ${step.tone.toLowerCase()}`} aria-hidden="true" />
      {side !== 'on' && (
        <TextInput
          aria-label={`Days, step ${at + 1}`}
          value={step.days}
          w={64}
          onChange={(e) => onChange({ ...step, days: e.currentTarget.value })}
        />
      )}
      <NativeSelect
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
        aria-label={`Tone, step ${at + 1}`}
        value={step.tone}
        data={tones}
        onChange={(e) => onChange({ ...step, tone: e.currentTarget.value })}
      />
      <button type="button" className="link" onClick={onRemove} aria-label={`Remove step ${at + 1}`}>
        Remove
      </button>
      {['days', 'tone'].map((field) => {
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

function PlanForm({ setting }: { setting: Schemas['PlanSetting'] }) {
  const [plan, setPlan] = useState<Plan>(setting.plan);
  const [version, setVersion] = useState(setting.version);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/reminder-plan', { body: { plan, version } })),
    onSuccess: (saved) => {
      setVersion(saved.version);
      setPlan(saved.plan);
      void queries.invalidateQueries();
      done('The plan counts from today on; nobody is written to about the past.');
    },
  });
  const change = (at: number, next: Step) =>
    setPlan((p) => ({ ...p, steps: p.steps.map((s, i) => (i === at ? next : s)) }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <form className="form" onSubmit={submit} noValidate>
      <h2>The reminder plan</h2>
      <p className="faded" style={{ margin: 0 }}>
        A client gets one letter a day at most. It lists what is open, in the tone of the sternest step that
        is due; whoever has paid, or is muted, gets none.
      </p>
      <Checkbox
        label="Send reminders by itself"
        checked={plan.on}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setPlan((p) => ({ ...p, on: checked }));
        }}
      />
      <ol className="plan-steps" aria-label="Steps">
        {plan.steps.map((s, i) => (
          <StepRow
            key={i}
            step={s}
            at={i}
            error={save.error}
            onChange={(next) => change(i, next)}
            onRemove={() => setPlan((p) => ({ ...p, steps: p.steps.filter((_, j) => j !== i) }))}
          />
        ))}
      </ol>
      <button
        type="button"
        className="link"
        onClick={() =>
          setPlan((p) => ({ ...p, steps: [...p.steps, { days: '30', before: false, tone: 'FINAL' }] }))
        }
      >
        Add a step
      </button>
      <TextInput
        label="The hour of the daily run"
        description="Fees are charged and letters go at this time, where the business is."
        value={plan.hour}
        error={problemOf(save.error, 'hour')}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setPlan((p) => ({ ...p, hour: value }));
        }}
      />
      <Checkbox
        label="Not on weekends and holidays: the letter goes on the next working day"
        checked={plan.offRestDays}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setPlan((p) => ({ ...p, offRestDays: checked }));
        }}
      />
      {plan.offRestDays && (
        <Textarea
          label="Holidays"
          placeholder="2027-12-25, 2027-12-26"
          value={plan.holidays}
          error={problemOf(save.error, 'holidays')}
          onChange={(e) => {
            const { value } = e.currentTarget;
            setPlan((p) => ({ ...p, holidays: value }));
          }}
        />
      )}
      <Refusal error={save.error} />
      <Button type="submit" loading={save.isPending}>
        Save the plan
      </Button>
    </form>
  );
}

const settingInMark = (s: Schemas['FeeSetting']) => ({
  ...s,
  ceiling: inMark(s.ceiling),
  policy: policyInMark(s.policy),
});

function FeesForm({ setting }: { setting: Schemas['FeeSetting'] }) {
  const [form, setForm] = useState(() => settingInMark(setting));
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/late-fees', { body: form })),
    onSuccess: (saved) => {
      setForm(settingInMark(saved));
      void queries.invalidateQueries();
      done('Invoices issued from now on print and bear it; issued ones keep what is printed on them.');
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <form className="form" onSubmit={submit} noValidate>
      <h2>Late fees</h2>
      <p className="faded" style={{ margin: 0 }}>
        Fixed and printed when an invoice is issued. A client or an invoice can have its own.
      </p>
      <LateFeeFields
        value={form.policy}
        path="policy."
        error={save.error}
        onChange={(policy) => setForm((f) => ({ ...f, policy }))}
      />
      <TextInput
        label="No percentage above"
        value={form.ceiling}
        error={problemOf(save.error, 'ceiling')}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setForm((f) => ({ ...f, ceiling: value }));
        }}
      />
      <Checkbox
        label="I look at each fee before it is charged"
        checked={form.review}
        onChange={(e) => {
          const { checked } = e.currentTarget;
          setForm((f) => ({ ...f, review: checked }));
        }}
      />
      <Refusal error={save.error} />
      <Button type="submit" loading={save.isPending}>
        Save the late fees
      </Button>
    </form>
  );
}

/** When clients are reminded, in which tone, and what lateness costs them. */
export function RemindersPage() {
  useTitle('Reminders and late fees');
  const plan = useQuery({ queryKey: ['plan'], queryFn: () => data(api.GET('/api/reminder-plan')) });
  const fees = useQuery({ queryKey: ['late-fees'], queryFn: () => data(api.GET('/api/late-fees')) });
  return (
    <div className="page">
      <Link className="link" to="/settings">
        All settings
      </Link>
      <h1>Reminders and late fees</h1>
      <div className="two">
        <Loaded query={plan} what="the reminder plan">
          {(p) => <PlanForm setting={p} />}
        </Loaded>
        <Loaded query={fees} what="the late fees">
          {(f) => <FeesForm setting={f} />}
        </Loaded>
      </div>
    </div>
  );
}
