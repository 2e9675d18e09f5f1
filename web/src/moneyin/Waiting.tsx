import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { money } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import { TakeHeldDialog } from './TakeHeldDialog';

type Record = Schemas['MoneyRecord'];

/** What is held on a card: taken, or let go. */
export function HeldActs({ record: r, order }: { record: Record; order: number }) {
  const [taking, setTaking] = useState(false);
  const queries = useQueryClient();
  const release = useMutation({
    mutationFn: () =>
      data(api.POST('/api/money-in/orders/{id}/release', { params: { path: { id: order } } })),
    onSuccess: () => tell('What was held is let go.'),
    onSettled: () => queries.invalidateQueries(),
  });
  return (
    <div className="foot">
      <span className="figure">
        <small>Held</small>
        <b>{money(r.amount)}</b>
      </span>
      <div className="acts">
        <Refusal error={release.error} />
        <Button variant="outline" loading={release.isPending} onClick={() => release.mutate()}>
          Let it go
        </Button>
        <Button onClick={() => setTaking(true)}>Take it…</Button>
      </div>
      {taking && <TakeHeldDialog order={order} amount={r.amount} onClose={() => setTaking(false)} />}
    </div>
  );
}

/** What is planned for a day: it can be taken back until the day before. */
export function PlannedActs({ record: r, on }: { record: Record; on: number }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const back = useMutation({
    mutationFn: () =>
      data(
        api.DELETE('/api/documents/{id}/planned-payments/{planned}', {
          params: { path: { id: on, planned: Number(r.key.replace('planned-', '')) } },
        }),
      ),
    onSuccess: () => {
      tell('It is planned no more.');
      void navigate('/money-in');
    },
    onSettled: () => queries.invalidateQueries(),
  });
  return (
    <div className="foot">
      <span className="figure">
        <small>Planned</small>
        <b>{money(r.amount)}</b>
      </span>
      <div className="acts">
        <Refusal error={back.error} />
        <Button variant="outline" loading={back.isPending} onClick={() => back.mutate()}>
          Take it back
        </Button>
      </div>
    </div>
  );
}
