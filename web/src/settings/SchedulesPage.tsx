import { Button, Checkbox, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { schedules as kept } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import css from '../design/Form.module.css';
import { MeasureBar } from '../design/Measure';
import { Loaded, Refusal } from '../design/States';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';
import { drawn } from './drawn';
import { tell } from '../design/tell';

type Schedule = Schemas['KeptSchedule'];
type Typed = Schemas['TypedSchedule'];

function Editing({ schedule }: { schedule: Schedule | null }) {
  const queries = useQueryClient();
  const form = useServerForm<Typed, number>({
    initial: schedule
      ? { name: schedule.name, terms: schedule.terms, usual: schedule.usual }
      : { name: '', terms: [{ deposit: false, share: 'rest', days: '30' }], usual: false },
    send: (typed) =>
      schedule
        ? data(
            api.PUT('/api/business/schedules/{id}', { params: { path: { id: schedule.id } }, body: typed }),
          )
        : data(api.POST('/api/business/schedules', { body: typed })),
    onDone: async (_, f) => {
      await queries.invalidateQueries({ queryKey: kept.queryKey });
      if (!schedule) f.reset();
      tell('Saved.');
    },
  });
  const remove = useMutation({
    mutationFn: () =>
      data(api.DELETE('/api/business/schedules/{id}', { params: { path: { id: schedule?.id ?? 0 } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: kept.queryKey }),
  });
  const { terms } = form.form.values;
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput className={css.half} label="Name" {...form.field('name')} />
      <div className={css.half} style={{ alignSelf: 'end' }}>
        {schedule && <MeasureBar parts={drawn(schedule.weights)} height={10} />}
      </div>
      {terms.map((t, i) => (
        <div key={i} className={`${css.whole} ${css.acts}`}>
          <TextInput label={`Share ${i + 1}`} {...form.at('terms', i, 'share', 'schedule')} />
          <TextInput label={`When ${i + 1}`} {...form.at('terms', i, 'days', 'schedule')} />
          <Checkbox
            label="deposit"
            checked={t.deposit}
            disabled={i > 0}
            onChange={(e) => form.form.setFieldValue(`terms.${i}.deposit`, e.currentTarget.checked)}
          />
          {terms.length > 1 && (
            <button type="button" className="link" onClick={() => form.form.removeListItem('terms', i)}>
              Remove installment {i + 1}
            </button>
          )}
        </div>
      ))}
      <div className={`${css.whole} ${css.acts}`}>
        <button
          type="button"
          className="link"
          onClick={() =>
            form.form.insertListItem('terms', {
              deposit: false,
              share: 'equal',
              days: 'monthly',
            })
          }
        >
          + Installment
        </button>
        <Checkbox label="new invoices begin with it" {...form.tick('usual')} />
      </div>
      <div className={css.whole}>
        <Refusal error={form.elsewhere ?? remove.error} />
        <div className={css.acts}>
          <Button type="submit" variant={schedule ? 'outline' : 'filled'} loading={form.save.isPending}>
            {schedule ? 'Save' : 'Keep it'}
          </Button>
          {schedule && (
            <button type="button" className="link late" onClick={() => remove.mutate()}>
              Delete {schedule.name}
            </button>
          )}
        </div>
      </div>
    </form>
  );
}

/** Schedules kept under a name, to be dropped onto any document. */
export function SchedulesPage() {
  useTitle('Schedules');
  const all = useQuery(kept);
  return (
    <Loaded query={all} what="the schedules">
      {(list) => (
        <>
          <h1>Schedules</h1>
          <p className="faded">
            They stand in the drawer beside every sheet. A share is a percentage, an amount, equal, or rest.
            When is days after issue, month end + 10, monthly, 1 and 15, at and the name of a milestone, or no
            date yet.
          </p>
          {list.map((s) => (
            <section key={s.id} aria-label={s.name}>
              <Editing key={`${s.id}-${s.name}-${s.weights.join()}`} schedule={s} />
            </section>
          ))}
          <h2 style={{ marginTop: 34 }}>Another one</h2>
          <Editing schedule={null} />
        </>
      )}
    </Loaded>
  );
}
