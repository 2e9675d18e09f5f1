import { Button, Select, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { isZero, money, newKey } from '../design/format';
import { DayField } from '../design/DayField';
import { Refusal } from '../design/States';
import { BY_HAND } from '../design/byHand';
import { tell } from '../design/tell';
import { Dialog } from '../design/Dialog';

/** Money that goes back to a client by hand. Its key is made once, so a repeat is one refund. */
export function RefundDialog({
  account: a,
  onClose,
}: {
  account: Schemas['AccountView'];
  onClose: () => void;
}) {
  const key = useRef(newKey());
  const queries = useQueryClient();
  const { credit, deposits, owes } = a.sums;
  const [deposit, setDeposit] = useState(isZero(credit));
  const [amount, setAmount] = useState(inMark((isZero(credit) ? deposits : credit).amount));
  const [way, setWay] = useState('TRANSFER');
  const [paidOn, setPaidOn] = useState('');
  const [reference, setReference] = useState('');
  const give = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/refunds', {
          body: {
            key: key.current,
            clientId: a.client.id,
            quoteId: null,
            deposit,
            way,
            currency: owes.currency,
            amount,
            paidOn,
            reference,
          },
        }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries();
      tell('It is in the books.');
      onClose();
    },
  });
  const shown = ['amount', 'way', 'paidOn', 'reference'].some((f) => problemOf(give.error, f));
  return (
    <Dialog onClose={onClose} title="Give money back">
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          give.mutate();
        }}
      >
        <Select
          label="Out of"
          data={[
            ...(isZero(credit) ? [] : [{ value: 'credit', label: `client credit, ${money(credit)}` }]),
            ...(isZero(deposits) ? [] : [{ value: 'deposit', label: `deposits held, ${money(deposits)}` }]),
          ]}
          value={deposit ? 'deposit' : 'credit'}
          allowDeselect={false}
          onChange={(v) => setDeposit(v === 'deposit')}
        />
        <TextInput
          label={`Amount, in ${owes.currency}`}
          data-autofocus
          onFocus={(e) => e.currentTarget.select()}
          inputMode="decimal"
          value={amount}
          error={problemOf(give.error, 'amount')}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        <Select
          label="How"
          data={BY_HAND}
          value={way}
          allowDeselect={false}
          onChange={(v) => setWay(v ?? 'TRANSFER')}
          error={problemOf(give.error, 'way')}
        />
        <DayField label="Given back on" value={paidOn} onChange={setPaidOn} lean="past" />
        {problemOf(give.error, 'paidOn') && <p className="late small">{problemOf(give.error, 'paidOn')}</p>}
        <TextInput
          label="Reference, if any"
          value={reference}
          error={problemOf(give.error, 'reference')}
          onChange={(e) => setReference(e.currentTarget.value)}
        />
        {!shown && <Refusal error={give.error} />}
        <p className="faded small" style={{ margin: 0 }}>
          This notes that you gave it back; the money itself is yours to send.
        </p>
        <Button type="submit" loading={give.isPending}>
          Note it
        </Button>
      </form>
    </Dialog>
  );
}
