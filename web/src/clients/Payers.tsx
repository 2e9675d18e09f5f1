import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import { money, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';

/** Somebody else who paid for a client last, with an offer to send the receipts there from now on. */
export function Payers({ client }: { client: Schemas['Client'] }) {
  const queries = useQueryClient();
  const payments = useQuery({
    queryKey: ['client', client.id, 'payments'],
    queryFn: () => data(api.GET('/api/clients/{id}/payments', { params: { path: { id: client.id } } })),
  });
  const last = payments.data?.find((p) => p.means.payer !== null && p.undone === null);
  const payer = last?.means.payer;
  const set = useMutation({
    mutationFn: (payment: number) =>
      data(api.POST('/api/payments/{id}/payer-of-client', { params: { path: { id: payment } } })),
    onSuccess: () => {
      void queries.invalidateQueries();
      tell('Receipts go there from now on.');
    },
  });
  if (!last || !payer) return null;
  const pays = client.more.contacts.some((c) => c.receipts && c.email === payer.email);
  return (
    <p>
      {money(last.amount)} of {shortDate(last.valueOn)} was paid by {payer.name || payer.email}
      {payer.name && payer.email && `, ${payer.email}`}.{' '}
      {payer.email && !pays && (
        <button type="button" className="link" onClick={() => set.mutate(last.id)}>
          Make this the payer, who gets the receipts
        </button>
      )}
      <Refusal error={set.error} />
    </p>
  );
}
