import { Button, Checkbox, Modal, Select, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useRef, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { money, newKey } from '../design/format';
import { Refusal } from '../design/States';

const close = { 'aria-label': 'Close' };

/** Records money that came by transfer, in cash or by cheque. Its key is made once, so a repeat is one payment. */
export function PaymentDialog({
  clientId,
  invoiceId,
  currency,
  suggested,
  onClose,
}: {
  clientId: number;
  invoiceId: number | null;
  currency?: string;
  suggested: string;
  onClose: () => void;
}) {
  const key = useRef(newKey());
  const session = useQuery({ queryKey: ['session'], queryFn: () => data(api.GET('/api/session')) });
  const queries = useQueryClient();
  const [form, setForm] = useState({
    way: 'TRANSFER',
    amount: suggested,
    valueOn: session.data?.today ?? '',
    reference: '',
  });
  const [held, setHeld] = useState(false);
  const record = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/payments', {
          body: { key: key.current, clientId, invoiceId, currency: currency ?? null, held, ...form },
        }),
      ),
    onSuccess: (payment) => {
      void queries.invalidateQueries();
      notifications.show({ message: `${money(payment.amount)} is in the books.`, closeButtonProps: close });
      onClose();
    },
  });
  const set = (field: keyof typeof form) => (value: string) => setForm((f) => ({ ...f, [field]: value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    record.mutate();
  };
  const shown = ['way', 'amount', 'valueOn', 'reference'].some((f) => problemOf(record.error, f));
  return (
    <Modal opened onClose={onClose} title="Record a payment" closeButtonProps={close}>
      <form className="form" onSubmit={submit} noValidate>
        <Select
          label="How it came"
          data={[
            { value: 'TRANSFER', label: 'Bank transfer' },
            { value: 'CASH', label: 'Cash' },
            { value: 'CHEQUE', label: 'Cheque' },
          ]}
          value={form.way}
          allowDeselect={false}
          onChange={(v) => set('way')(v ?? 'TRANSFER')}
          error={problemOf(record.error, 'way')}
        />
        <TextInput
          label={currency ? `Amount, in ${currency}` : 'Amount'}
          inputMode="decimal"
          data-autofocus
          onFocus={(e) => e.currentTarget.select()}
          value={form.amount}
          error={problemOf(record.error, 'amount')}
          onChange={(e) => set('amount')(e.currentTarget.value)}
        />
        <TextInput
          label="Date received"
          type="date"
          value={form.valueOn}
          error={problemOf(record.error, 'valueOn')}
          onChange={(e) => set('valueOn')(e.currentTarget.value)}
        />
        <TextInput
          label="Reference, if any"
          value={form.reference}
          error={problemOf(record.error, 'reference')}
          onChange={(e) => set('reference')(e.currentTarget.value)}
        />
        {invoiceId === null && (
          <Checkbox
            label="Hold it as a deposit for work to come"
            checked={held}
            onChange={(e) => setHeld(e.currentTarget.checked)}
          />
        )}
        {!shown && <Refusal error={record.error} />}
        <p className="faded small">
          {held ? 'It settles nothing by itself; an invoice deducts it as a deposit already paid. ' : ''}More
          than is open is kept as the client’s credit. A wrong entry can be undone afterwards.
        </p>
        <Button type="submit" loading={record.isPending}>
          Record it
        </Button>
      </form>
    </Modal>
  );
}

/** Undoes a payment that was recorded wrongly. */
export function UndoDialog({ payment, onClose }: { payment: Schemas['Payment']; onClose: () => void }) {
  const [why, setWhy] = useState('');
  const queries = useQueryClient();
  const undo = useMutation({
    mutationFn: () =>
      data(api.POST('/api/payments/{id}/undoing', { params: { path: { id: payment.id } }, body: { why } })),
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    undo.mutate();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      title={`Undo the payment of ${money(payment.amount)}`}
      closeButtonProps={close}
    >
      <form className="form" onSubmit={submit} noValidate>
        <p>
          What it settled will be open again. The entry stays in the journal, with one that takes it back.
        </p>
        <TextInput
          label="Why"
          data-autofocus
          value={why}
          error={problemOf(undo.error, 'why')}
          onChange={(e) => setWhy(e.currentTarget.value)}
        />
        {!problemOf(undo.error, 'why') && <Refusal error={undo.error} />}
        <Button type="submit" loading={undo.isPending}>
          Undo it
        </Button>
      </form>
    </Modal>
  );
}
