import { Button, Select, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { money, newKey, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';

type Debt = { number: string; position: number; fee: boolean };

/** A debt in a few words: its invoice, and which part of it. */
export const debtWords = (d: Debt) => `${d.number}, ${d.fee ? 'late fee' : `installment ${d.position}`}`;

/** What a payment settles of one debt settles another instead. */
export function MoveDialog({
  record: r,
  payment: p,
  onClose,
}: {
  record: Schemas['MoneyRecord'];
  payment: Schemas['Payment'];
  onClose: () => void;
}) {
  const key = useRef(newKey());
  const queries = useQueryClient();
  const [from, setFrom] = useState(String(r.settled[0]?.debt ?? ''));
  const targets = r.after.moveTo.filter((t) => String(t.debt) !== from);
  const [wanted, setTo] = useState('');
  const to = targets.some((t) => String(t.debt) === wanted) ? wanted : String(targets[0]?.debt ?? '');
  const [amount, setAmount] = useState(inMark(r.settled[0]?.amount.amount ?? ''));
  const move = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/payments/{id}/moves', {
          params: { path: { id: p.id } },
          body: { key: key.current, from: Number(from), to: Number(to), amount },
        }),
      ),
    onSuccess: () => {
      tell('Moved; both entries are in the books.');
      onClose();
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const shown = ['amount', 'from', 'to'].some((f) => problemOf(move.error, f));
  return (
    <Dialog onClose={onClose} title="Move it to another debt">
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          move.mutate();
        }}
      >
        <Select
          label="From"
          data={r.settled.map((s) => ({
            value: String(s.debt),
            label: `${debtWords(s)}: ${money(s.amount)} of it`,
          }))}
          value={from}
          allowDeselect={false}
          onChange={(v) => {
            setFrom(v ?? '');
            setAmount(inMark(r.settled.find((s) => String(s.debt) === v)?.amount.amount ?? ''));
          }}
          error={problemOf(move.error, 'from')}
        />
        <Select
          label="To"
          data={targets.map((t) => ({
            value: String(t.debt),
            label: `${debtWords(t)}${t.dueOn ? `, due ${shortDate(t.dueOn)}` : ''}: ${money(t.open)} open`,
          }))}
          value={to}
          allowDeselect={false}
          onChange={(v) => setTo(v ?? '')}
          error={problemOf(move.error, 'to')}
        />
        <TextInput
          label={`Amount, in ${p.amount.currency}`}
          data-autofocus
          onFocus={(e) => e.currentTarget.select()}
          inputMode="decimal"
          value={amount}
          error={problemOf(move.error, 'amount')}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        {!shown && <Refusal error={move.error} />}
        <p className="faded small" style={{ margin: 0 }}>
          The first is open again by as much. The client is told nothing.
        </p>
        <Button type="submit" loading={move.isPending}>
          Move it
        </Button>
      </form>
    </Dialog>
  );
}
