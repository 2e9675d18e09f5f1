import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { namedPlans } from '../api/business';
import { Loaded, Refusal } from '../design/States';
import { PlanSteps, type Step } from './PlanSteps';

type Plan = Schemas['NamedPlan'];

const begun: Step[] = [
  { days: '7', before: false, tone: 'FRIENDLY', way: 'MAIL', copy: false },
  { days: '21', before: false, tone: 'FIRM', way: 'MAIL', copy: false },
];

/** One plan while it is written. @param plan null for a new one */
function PlanEditor({ plan, onClose }: { plan: Plan | null; onClose: () => void }) {
  const [name, setName] = useState(plan?.name ?? '');
  const [steps, setSteps] = useState<Step[]>(plan?.steps ?? begun);
  const queries = useQueryClient();
  const done = {
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  };
  const save = useMutation({
    mutationFn: () => {
      const body = { name, steps, version: plan?.version ?? 0 };
      return plan
        ? data(api.PUT('/api/reminder-plans/{id}', { params: { path: { id: plan.id } }, body }))
        : data(api.POST('/api/reminder-plans', { body }));
    },
    ...done,
  });
  const remove = useMutation({
    mutationFn: (p: Plan) =>
      data(
        api.DELETE('/api/reminder-plans/{id}', {
          params: { path: { id: p.id }, query: { version: p.version } },
        }),
      ),
    ...done,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <form className="form" onSubmit={submit} noValidate aria-label={plan ? plan.name : 'A new plan'}>
      <TextInput
        label="Its name"
        autoFocus
        value={name}
        error={problemOf(save.error, 'name')}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <PlanSteps steps={steps} error={save.error} onChange={setSteps} />
      <Refusal error={problemOf(save.error, 'name') ? remove.error : (save.error ?? remove.error)} />
      <div className="row-of-links">
        <Button type="submit" loading={save.isPending}>
          Save
        </Button>
        <Button variant="outline" onClick={onClose}>
          Not now
        </Button>
        {plan && (
          <button type="button" className="link" onClick={() => remove.mutate(plan)}>
            Delete this plan
          </button>
        )}
      </div>
    </form>
  );
}

/** Plans for clients and documents that are to be reminded otherwise. */
export function NamedPlans() {
  const plans = useQuery(namedPlans);
  const [open, setOpen] = useState<number | 'new' | null>(null);
  return (
    <section className="form" aria-label="Other plans">
      <h2>Other plans</h2>
      <p className="faded" style={{ margin: 0 }}>
        For clients, or single documents, that are to be reminded otherwise. Choose one on the client’s page
        or beside the document; the hour and the days on which nothing goes are the same for all.
      </p>
      <Loaded query={plans} what="the other plans">
        {(all) => (
          <ul className="list">
            {all.map((p) => (
              <li key={p.id}>
                {open === p.id ? (
                  <PlanEditor key={p.version} plan={p} onClose={() => setOpen(null)} />
                ) : (
                  <>
                    <span className="grow">
                      <b>{p.name}</b>{' '}
                      <span className="faded small">
                        {p.steps.length === 1 ? '1 step' : `${p.steps.length} steps`}
                        {p.uses > 0 && `, used ${p.uses === 1 ? 'once' : `${p.uses} times`}`}
                      </span>
                    </span>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Change ${p.name}`}
                      onClick={() => setOpen(p.id)}
                    >
                      Change
                    </button>
                  </>
                )}
              </li>
            ))}
          </ul>
        )}
      </Loaded>
      {open === 'new' ? (
        <PlanEditor plan={null} onClose={() => setOpen(null)} />
      ) : (
        <button type="button" className="link" onClick={() => setOpen('new')}>
          Add a plan
        </button>
      )}
    </section>
  );
}
