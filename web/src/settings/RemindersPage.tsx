import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { business } from '../api/business';
import { countries } from '../design/countries';
import { DayField } from '../design/DayField';
import { isDay, longDate } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { LateFeeFields, policyInMark } from './LateFeeFields';
import { NamedPlans } from './NamedPlans';
import { PlanSteps } from './PlanSteps';
import { useTitle } from '../design/useTitle';
import { tell } from '../design/tell';
import css from './Settings.module.css';
import { holidaysOf, lateFees, reminderPlan } from '../api/business';

type Plan = Schemas['TypedPlan'];
/** Days on which no letter goes: a country's public holidays, and days of one's own. */
function Holidays({
  own,
  of,
  error,
  onOwn,
  onOf,
}: {
  own: string;
  of: string;
  error: unknown;
  onOwn: (days: string) => void;
  onOf: (country: string) => void;
}) {
  const [day, setDay] = useState('');
  const days = own.split(/[\s,;]+/).filter(Boolean);
  const known = useQuery(holidaysOf(of));
  const add = () => {
    if (day && !days.includes(day)) onOwn([...days, day].sort().join(' '));
    setDay('');
  };
  return (
    <>
      <NativeSelect
        label="Public holidays of"
        data={countries}
        value={of}
        error={problemOf(error, 'holidaysOf')}
        onChange={(e) => onOf(e.currentTarget.value)}
      />
      {of !== '' && (
        <p className="faded small" style={{ margin: 0 }}>
          {known.isError
            ? 'No public holidays are known of this country; name the days below.'
            : (known.data ?? []).map((h) => `${longDate(h.day)}, ${h.name}`).join(' · ')}
        </p>
      )}
      {days.length > 0 && (
        <ul className="list" aria-label="Days of your own">
          {days.map((d) => (
            <li key={d}>
              <span className="grow">{isDay(d) ? longDate(d) : d}</span>
              <button
                type="button"
                className="link"
                onClick={() => onOwn(days.filter((o) => o !== d).join(' '))}
              >
                Remove
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="row-of-links" style={{ alignItems: 'flex-end' }}>
        <DayField
          label="A day of your own"
          hint="24 December"
          lean="coming"
          value={day}
          problem={problemOf(error, 'holidays')}
          onChange={setDay}
        />
        <button type="button" className="link" disabled={!isDay(day)} onClick={add}>
          Add this day
        </button>
      </div>
    </>
  );
}

function PlanForm({ setting }: { setting: Schemas['PlanSetting'] }) {
  const [plan, setPlan] = useState<Plan>(setting.plan);
  const [version, setVersion] = useState(setting.version);
  const own = useQuery(business);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/reminder-plan', { body: { plan, version } })),
    onSuccess: (saved) => {
      setVersion(saved.version);
      setPlan(saved.plan);
      void queries.invalidateQueries();
      tell('The plan counts from today on; nobody is written to about the past.');
    },
  });
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
      <PlanSteps
        steps={plan.steps}
        error={save.error}
        onChange={(steps) => setPlan((p) => ({ ...p, steps }))}
      />
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
          setPlan((p) => ({
            ...p,
            offRestDays: checked,
            holidaysOf: checked && !p.holidaysOf ? (own.data?.business.country ?? '') : p.holidaysOf,
          }));
        }}
      />
      {plan.offRestDays && (
        <Holidays
          own={plan.holidays}
          of={plan.holidaysOf}
          error={save.error}
          onOwn={(holidays) => setPlan((p) => ({ ...p, holidays }))}
          onOf={(holidaysOf) => setPlan((p) => ({ ...p, holidaysOf }))}
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
      tell('Invoices issued from now on print and bear it; issued ones keep what is printed on them.');
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
  const plan = useQuery(reminderPlan);
  const fees = useQuery(lateFees);
  return (
    <>
      <h1>Reminders and late fees</h1>
      <div className={css.two}>
        <div>
          <Loaded query={plan} what="the reminder plan">
            {(p) => <PlanForm setting={p} />}
          </Loaded>
          <div style={{ height: 28 }} />
          <NamedPlans />
        </div>
        <Loaded query={fees} what="the late fees">
          {(f) => <FeesForm setting={f} />}
        </Loaded>
      </div>
    </>
  );
}
