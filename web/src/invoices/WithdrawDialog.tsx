import { Button, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf } from '../api/client';
import { Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

/** While nobody has seen an invoice: back to a draft that keeps its number, or void. */
export function WithdrawDialog({
  id,
  number,
  forGood,
  onClose,
}: {
  id: number;
  number: string;
  forGood: boolean;
  onClose: () => void;
}) {
  const [reason, setReason] = useState('');
  const queries = useQueryClient();
  const withdraw = useMutation({
    mutationFn: () => {
      const options = { params: { path: { id } }, body: { reason } };
      return data(
        forGood
          ? api.POST('/api/invoices/{id}/voiding', options)
          : api.POST('/api/invoices/{id}/taking-back', options),
      );
    },
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    withdraw.mutate();
  };
  return (
    <Dialog onClose={onClose} title={forGood ? `Void ${number}` : `Change ${number}, which nobody has seen`}>
      <form className="form" onSubmit={submit} noValidate>
        <p>
          {forGood
            ? 'Its number stays and is marked void; its entry is reversed today. Nobody has seen it yet.'
            : 'It goes back to a draft that keeps its number. What it says now stays readable, and its entry is reversed today.'}
        </p>
        <TextInput
          label="Why"
          data-autofocus
          value={reason}
          error={problemOf(withdraw.error, 'reason')}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        {!problemOf(withdraw.error, 'reason') && <Refusal error={withdraw.error} />}
        <Button type="submit" loading={withdraw.isPending} {...(forGood ? { color: 'red' } : {})}>
          {forGood ? 'Void it' : 'Back to a draft'}
        </Button>
      </form>
    </Dialog>
  );
}
