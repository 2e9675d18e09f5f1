import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useRef, useState } from 'react';
import { useReceipts } from '../api/business';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { isZero, money, newKey, plain, shortDate } from '../design/format';
import { BY_HAND } from '../design/byHand';
import { Refusal } from '../design/States';
import { useLooseDate } from '../design/useLooseDate';
import { tell } from '../design/tell';
import { session as sessionQuery } from '../api/session';
import { Dialog } from '../design/Dialog';

/** Records money that came by transfer, in cash or by cheque. Its key is made once, so a repeat is one payment. */
export function PaymentDialog({
  clientId,
  invoiceId,
  currency,
  suggested,
  quote = false,
  onClose,
}: {
  clientId: number;
  invoiceId: number | null;
  currency?: string;
  suggested: string;
  /** Whether it is for an accepted quote, before there is an invoice. */
  quote?: boolean;
  onClose: () => void;
}) {
  const key = useRef(newKey());
  const session = useQuery(sessionQuery);
  const queries = useQueryClient();
  const [form, setForm] = useState({
    way: 'TRANSFER',
    amount: inMark(suggested),
    valueOn: session.data?.today ?? '',
    reference: '',
  });
  const [held, setHeld] = useState(false);
  // What it is for: null until somebody ticks, then exactly what is ticked, before all else.
  const [ticked, setTicked] = useState<number[] | null>(null);
  const receipts = useReceipts();
  const [chosen, setChosen] = useState<boolean | null>(null);
  // As payers are treated by themselves, until a person says otherwise.
  const silent = chosen ?? !receipts;
  const body = {
    key: key.current,
    clientId,
    invoiceId,
    currency: currency ?? null,
    held,
    debts: ticked,
    silent,
    ...form,
  };
  const [asked] = useDebouncedValue(JSON.stringify({ ...body, valueOn: '', reference: '' }), 200);
  const outlook = useQuery({
    queryKey: ['client', clientId, 'outlook', asked],
    queryFn: () => data(api.POST('/api/payments/outlook', { body: JSON.parse(asked) as typeof body })),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  const record = useMutation({
    mutationFn: () => data(api.POST('/api/payments', { body })),
    onSuccess: (payment) => {
      void queries.invalidateQueries();
      tell(`${money(payment.amount)} is in the books.`);
      onClose();
    },
  });
  const set = (field: keyof typeof form) => (value: string) => setForm((f) => ({ ...f, [field]: value }));
  const day = useLooseDate(form.valueOn, set('valueOn'), 'past');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    record.mutate();
  };
  const shown = ['way', 'amount', 'valueOn', 'reference'].some((f) => problemOf(record.error, f));
  return (
    <Dialog onClose={onClose} title="Record a payment">
      <form className="form" onSubmit={submit} noValidate>
        <Select
          label="How it came"
          data={BY_HAND}
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
          description={day.understood}
          inputWrapperOrder={['label', 'input', 'description', 'error']}
          value={day.input.value}
          error={day.problem ?? problemOf(record.error, 'valueOn')}
          onChange={(e) => day.input.onChange(e.currentTarget.value)}
          onBlur={day.input.onBlur}
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
        {quote && (
          <p className="faded small">
            It is booked as a deposit on the quote; the invoice for the work deducts it. All of it at once
            issues the invoice.
          </p>
        )}
        {outlook.data && !held && !quote && (
          <Settles outlook={outlook.data} ticked={ticked} onTick={setTicked} />
        )}
        {held && (
          <p className="faded small">
            It settles nothing by itself; an invoice deducts it as a deposit already paid.
          </p>
        )}
        {outlook.data &&
          !held &&
          (outlook.data.receiptTo ? (
            <Checkbox
              label={`A receipt goes to ${outlook.data.receiptTo}`}
              checked={!silent}
              onChange={(e) => setChosen(!e.currentTarget.checked)}
            />
          ) : (
            <p className="faded small">No receipt goes.</p>
          ))}
        {!shown && <Refusal error={record.error} />}
        <p className="faded small">A wrong entry can be undone afterwards.</p>
        <Button type="submit" loading={record.isPending}>
          Record it
        </Button>
      </form>
    </Dialog>
  );
}

/** What the money will settle, debt by debt; what is ticked comes first, and what that leaves goes to the oldest. */
function Settles({
  outlook,
  ticked,
  onTick,
}: {
  outlook: Schemas['Outlook'];
  ticked: number[] | null;
  onTick: (ids: number[]) => void;
}) {
  const { debts, credit } = outlook;
  const isTicked = (d: Schemas['Taking']) => (ticked ? ticked.includes(d.id) : !isZero(d.takes));
  const now = debts.filter(isTicked).map((d) => d.id);
  const toggle = (id: number) => onTick(now.includes(id) ? now.filter((n) => n !== id) : [...now, id]);
  return (
    <fieldset className="settles">
      <legend>
        {debts.length ? 'It settles, what is ticked first' : 'Nothing is open that it could settle.'}
      </legend>
      <ul className="list">
        {debts.map((d) => (
          <li key={d.id}>
            <Checkbox
              className="grow"
              checked={isTicked(d)}
              onChange={() => toggle(d.id)}
              label={`${d.number}, ${d.fee ? 'late fee of' : `installment ${d.position}, due`} ${shortDate(d.dueOn)}`}
              description={`open ${plain(d.open)}`}
            />
            <b className="figures">{isZero(d.takes) ? '–' : plain(d.takes)}</b>
          </li>
        ))}
        {!isZero(credit) && (
          <li>
            <span className="grow">Kept as client credit</span>
            <b className="figures">{plain(credit)}</b>
          </li>
        )}
      </ul>
    </fieldset>
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
    <Dialog onClose={onClose} title={`Undo the payment of ${money(payment.amount)}`}>
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
    </Dialog>
  );
}
