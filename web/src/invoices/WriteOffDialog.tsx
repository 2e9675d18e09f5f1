import { Button, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { money } from '../design/format';
import { Refusal } from '../design/States';

/** What is open of an invoice is given up. */
export function WriteOffDialog({
  id,
  issued,
  onClose,
}: {
  id: number;
  issued: Schemas['Issued'];
  onClose: () => void;
}) {
  const [reason, setReason] = useState('');
  const queries = useQueryClient();
  const { open } = issued;
  const writeOff = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/invoices/{id}/write-off', {
          params: { path: { id } },
          body: { open: open.amount, reason },
        }),
      ),
    onSuccess: onClose,
    // Also where it was refused: another sum may be open by now.
    onSettled: () => queries.invalidateQueries(),
  });
  const wrong = problemOf(writeOff.error, 'reason');
  return (
    <Dialog onClose={onClose} title={`Write off ${money(open)} of ${issued.document.number}`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          writeOff.mutate();
        }}
      >
        <p>
          It is given up, with its late fees, and goes to bad debts. No reminder goes any more, and the client
          is told nothing. Should money come after all, say under <i>More</i> that it is owed again.
        </p>
        <TextInput
          label="Why"
          data-autofocus
          value={reason}
          error={wrong}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        {!wrong && <Refusal error={writeOff.error} />}
        <Button type="submit" loading={writeOff.isPending}>
          Write it off
        </Button>
      </form>
    </Dialog>
  );
}
