import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { BY_HAND } from '../design/byHand';
import { DayField } from '../design/DayField';
import { Dialog } from '../design/Dialog';
import { isZero, money, newKey } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import { topWords } from './topWords';

/** Gives a payment back, or a part of it. Its key is made once, so a repeat is one refund. */
export function RefundPaymentDialog({
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
  const credit = r.after.refundCredit;
  const most = r.after.refundMost;
  const [way, setWay] = useState(p.means.byHand ? p.means.way : '');
  const [amount, setAmount] = useState(inMark((credit && !isZero(credit) ? credit : most)?.amount ?? ''));
  const [owedAgain, setOwedAgain] = useState(false);
  const [withTop, setWithTop] = useState(false);
  const { extra } = p.means;
  const [paidOn, setPaidOn] = useState('');
  const [reference, setReference] = useState('');
  const give = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/payments/{id}/refunds', {
          params: { path: { id: p.id } },
          body: { key: key.current, way, amount, paidOn, reference, owedAgain, withTop },
        }),
      ),
    onSuccess: () => {
      tell(way ? 'It is in the books.' : 'It is in the books, and the card processor is asked to send it.');
      onClose();
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const shown = ['amount', 'way', 'paidOn', 'reference'].some((f) => problemOf(give.error, f));
  return (
    <Dialog onClose={onClose} title={`Refund of the payment of ${money(p.amount)}`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          give.mutate();
        }}
      >
        {credit && most && (
          <p className="faded small" style={{ margin: 0 }}>
            {isZero(credit)
              ? p.held
                ? 'Nothing of it is held any more.'
                : `All of it settles what was owed. Up to ${money(most)} can go back if that is owed again.`
              : credit.amount === most.amount
                ? `${money(credit)} can go back; nothing that is settled is opened by it.`
                : `${money(credit)} is client credit and goes back first. Up to ${money(most)} in all, if what it settled is owed again.`}
          </p>
        )}
        <TextInput
          label={`Amount, in ${p.amount.currency}`}
          data-autofocus
          onFocus={(e) => e.currentTarget.select()}
          inputMode="decimal"
          value={amount}
          error={problemOf(give.error, 'amount')}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        {credit && most && credit.amount !== most.amount && (
          <Checkbox
            label="What this payment settled is owed again, as far as the sum goes beyond client credit"
            checked={owedAgain}
            onChange={(e) => setOwedAgain(e.currentTarget.checked)}
          />
        )}
        {extra && (
          <Checkbox
            label={`What came on top goes back too: ${topWords(extra)}`}
            checked={withTop}
            onChange={(e) => setWithTop(e.currentTarget.checked)}
          />
        )}
        <Select
          label="How"
          data={[
            ...(p.means.byHand ? [] : [{ value: '', label: `To the ${p.means.card || 'card'}, by itself` }]),
            ...BY_HAND,
          ]}
          value={way}
          allowDeselect={false}
          onChange={(v) => setWay(v ?? '')}
          error={problemOf(give.error, 'way')}
        />
        {way !== '' && (
          <>
            <DayField
              label="Given back on"
              value={paidOn}
              onChange={setPaidOn}
              lean="past"
              problem={problemOf(give.error, 'paidOn')}
            />
            <TextInput
              label="Reference, if any"
              value={reference}
              error={problemOf(give.error, 'reference')}
              onChange={(e) => setReference(e.currentTarget.value)}
            />
          </>
        )}
        {!shown && <Refusal error={give.error} />}
        <p className="faded small" style={{ margin: 0 }}>
          {way === ''
            ? 'The card processor sends it; what it kept as its fee it keeps.'
            : 'This notes that you gave it back; the money itself is yours to send.'}
        </p>
        <Button type="submit" loading={give.isPending}>
          {way === '' ? 'Refund it' : 'Note it'}
        </Button>
      </form>
    </Dialog>
  );
}
