import { Button, Checkbox, Modal, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Refusal } from '../design/States';

/** Takes an issued invoice back whole, perhaps with a new draft in its place. */
export function CreditDialog({ invoice, onClose }: { invoice: Schemas['InvoiceView']; onClose: () => void }) {
  const [reason, setReason] = useState('');
  const [replace, setReplace] = useState(true);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const credit = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/invoices/{id}/credit-note', {
          params: { path: { id: invoice.id } },
          body: { reason, replace },
        }),
      ),
    onSuccess: (answer) => {
      void queries.invalidateQueries();
      onClose();
      if (answer.draftId != null) void navigate(`/invoices/${answer.draftId}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    credit.mutate();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      title={`Take back invoice ${invoice.issued?.document.number}`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <form className="form" onSubmit={submit} noValidate>
        <p>
          A credit note takes back the whole of it and is sent to the client. What was paid on it becomes the
          client’s credit. This cannot be undone.
        </p>
        <TextInput
          label="Reason, as it is printed"
          data-autofocus
          value={reason}
          error={problemOf(credit.error, 'reason')}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        <Checkbox
          label="Begin a new draft with the same lines"
          checked={replace}
          onChange={(e) => setReplace(e.currentTarget.checked)}
        />
        {!problemOf(credit.error, 'reason') && <Refusal error={credit.error} />}
        <Button type="submit" loading={credit.isPending}>
          {replace ? 'Credit and replace' : 'Credit it'}
        </Button>
      </form>
    </Modal>
  );
}
