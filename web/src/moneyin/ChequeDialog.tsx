import { Button, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { DayField } from '../design/DayField';
import { Dialog } from '../design/Dialog';
import { money, newKey } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';

/** A cheque came back: what it had settled is open again, with what the bank keeps for it. */
export function ChequeDialog({ payment: p, onClose }: { payment: Schemas['Payment']; onClose: () => void }) {
  const key = useRef(newKey());
  const queries = useQueryClient();
  const [on, setOn] = useState('');
  const [cost, setCost] = useState('');
  const [why, setWhy] = useState('not enough money in the account');
  const note = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/payments/{id}/return', {
          params: { path: { id: p.id } },
          body: { key: key.current, on, cost, why },
        }),
      ),
    onSuccess: () => {
      tell('It is in the books, and the client is told.');
      onClose();
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const shown = ['cost', 'paidOn', 'why'].some((f) => problemOf(note.error, f));
  return (
    <Dialog onClose={onClose} title={`The cheque of ${money(p.amount)} came back`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          note.mutate();
        }}
      >
        <TextInput
          label="Why, as your bank says"
          data-autofocus
          value={why}
          error={problemOf(note.error, 'why')}
          onChange={(e) => setWhy(e.currentTarget.value)}
        />
        <DayField
          label="On"
          value={on}
          onChange={setOn}
          lean="past"
          problem={problemOf(note.error, 'paidOn')}
        />
        <TextInput
          label={`What your bank keeps for it, in ${p.amount.currency}`}
          inputMode="decimal"
          placeholder="nothing"
          value={cost}
          error={problemOf(note.error, 'cost')}
          onChange={(e) => setCost(e.currentTarget.value)}
        />
        {!shown && <Refusal error={note.error} />}
        <p className="faded small" style={{ margin: 0 }}>
          What it had paid is open again, and the client gets a letter that says so kindly.
        </p>
        <Button type="submit" loading={note.isPending}>
          Note it
        </Button>
      </form>
    </Dialog>
  );
}
