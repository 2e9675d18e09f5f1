import { Button, Radio, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { isZero, money, plain } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

type What = 'rest' | 'percent' | 'lines';

function Billing({ id, left, onClose }: { id: number; left: Schemas['Left']; onClose: () => void }) {
  const [what, setWhat] = useState<What>('rest');
  const [percent, setPercent] = useState(inMark('30') + '%');
  const [quantities, setQuantities] = useState<Record<number, string>>({});
  const navigate = useNavigate();
  const queries = useQueryClient();
  const begin = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/quotes/{id}/invoices', {
          params: { path: { id } },
          body: {
            what,
            percent,
            lines: Object.entries(quantities).map(([line, quantity]) => ({ line: Number(line), quantity })),
          },
        }),
      ),
    onSuccess: async (begun) => {
      await queries.invalidateQueries();
      onClose();
      void navigate(`/invoices/${begun.id}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate();
  };
  const named =
    problemOf(begin.error, 'percent') ??
    left.lines.map((l) => problemOf(begin.error, `lines[${l.line}].quantity`)).find(Boolean);
  return (
    <form className="form" noValidate onSubmit={submit}>
      <p style={{ margin: 0 }}>
        Of {money(left.total)} that was accepted, <b>{money(left.left)}</b> of the work is left to invoice.
        {!isZero(left.deposits) && ` The final invoice deducts ${money(left.deposits)} of deposits from it.`}
      </p>
      <Radio.Group label="What to invoice now" value={what} onChange={(v) => setWhat(v as What)}>
        <div style={{ display: 'grid', gap: 8, marginTop: 8 }}>
          <Radio autoFocus value="rest" label="All that is left: the final invoice" />
          <Radio value="percent" label="A percentage of the whole" />
          <Radio value="lines" label="A part of each line" />
        </div>
      </Radio.Group>
      {what === 'percent' && (
        <TextInput
          label="Percentage"
          value={percent}
          error={problemOf(begin.error, 'percent')}
          onChange={(e) => setPercent(e.currentTarget.value)}
        />
      )}
      {what === 'lines' && (
        <div style={{ display: 'grid', gap: 10 }}>
          {left.lines.map((l) => (
            <TextInput
              key={l.line}
              label={l.description}
              description={
                isZero(l.left)
                  ? 'all of it is invoiced'
                  : l.quantityLeft
                    ? `${inMark(l.quantityLeft)} ${l.unit} left, ${plain(l.left)}`
                    : `${plain(l.left)} left`
              }
              placeholder="nothing"
              inputMode="decimal"
              disabled={isZero(l.left)}
              value={quantities[l.line] ?? ''}
              error={problemOf(begin.error, `lines[${l.line}].quantity`)}
              onChange={(e) => {
                const { value } = e.currentTarget;
                setQuantities((q) => ({ ...q, [l.line]: value }));
              }}
            />
          ))}
        </div>
      )}
      {!named && <Refusal error={begin.error} />}
      <p className="small faded" style={{ margin: 0 }}>
        It begins a draft; you can change it before it is issued.
      </p>
      <Button type="submit" loading={begin.isPending}>
        Begin the invoice
      </Button>
    </form>
  );
}

/** What of an accepted quote is invoiced now: all that is left, a percentage, or a part of each line. */
export function BillDialog({ id, number, onClose }: { id: number; number: string; onClose: () => void }) {
  const left = useQuery({
    queryKey: ['quote', id, 'left'],
    queryFn: () => data(api.GET('/api/quotes/{id}/left', { params: { path: { id } } })),
    gcTime: 0,
  });
  return (
    <Dialog onClose={onClose} title={`Invoice quote ${number}`}>
      <Loaded query={left} what="what is left">
        {(l) => <Billing id={id} left={l} onClose={onClose} />}
      </Loaded>
    </Dialog>
  );
}
