import { Button, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { money } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';

/** Takes what is held on a card, or less of it; the rest is let go. */
export function TakeHeldDialog({
  order,
  amount: held,
  onClose,
}: {
  order: number;
  amount: Schemas['Amount'];
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [amount, setAmount] = useState(inMark(held.amount));
  const take = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/money-in/orders/{id}/taking', { params: { path: { id: order } }, body: { amount } }),
      ),
    onSuccess: () => {
      tell('It is taken, and in the books.');
      onClose();
      void navigate('/money-in');
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const wrong = problemOf(take.error, 'amount');
  return (
    <Dialog onClose={onClose} title={`Take of the ${money(held)} that is held`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          take.mutate();
        }}
      >
        <TextInput
          label={`Amount, in ${held.currency}`}
          data-autofocus
          onFocus={(e) => e.currentTarget.select()}
          inputMode="decimal"
          value={amount}
          error={wrong}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        {!wrong && <Refusal error={take.error} />}
        <p className="faded small" style={{ margin: 0 }}>
          What is not taken now is let go, and cannot be taken later.
        </p>
        <Button type="submit" loading={take.isPending}>
          Take it
        </Button>
      </form>
    </Dialog>
  );
}
