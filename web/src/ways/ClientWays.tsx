import { Checkbox } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { waysToPay } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { clientWays } from '../api/clients';
import { Refusal } from '../design/States';

type Way = Schemas['WayOffer']['way'];

const words: Record<string, string> = {
  CARD: 'card',
  BANK_DEBIT: 'bank debit',
  SATCHEL: 'Satchel, a wallet',
  HATBOX: 'Hatbox, a wallet',
  TRANSFER: 'bank transfer',
  CASH: 'cash',
  CHEQUE: 'cheque',
};

/** What a client is limited to, of the ways that the business offers. */
export function ClientWays({ id }: { id: number }) {
  const queries = useQueryClient();
  const setting = useQuery(waysToPay);
  const own = useQuery(clientWays(id));
  const limit = useMutation({
    mutationFn: (to: Way[] | null) =>
      data(
        api.PUT('/api/clients/{id}/ways-to-pay', {
          params: { path: { id } },
          body: { limited: to !== null, ways: to ?? [] },
        }),
      ),
    onSuccess: (answer) => {
      queries.setQueryData(clientWays(id).queryKey, answer);
      void queries.invalidateQueries();
    },
  });
  if (!setting.data || !own.data) return null;
  const offered = setting.data.ways.filter((w) => w.on).map((w) => w.way as Way);
  const kept = own.data.limited ? own.data.ways : offered;
  // What is just being kept is shown at once.
  const limited = limit.isPending ? (limit.variables ?? offered) : kept;
  return (
    <fieldset aria-label="Ways to pay of this client" style={{ border: 0, padding: 0, margin: '8px 0' }}>
      <span className="small faded">Pays by</span>{' '}
      <span className="row-of-links" style={{ display: 'inline-flex', gap: 16, flexWrap: 'wrap' }}>
        {offered.map((w) => (
          <Checkbox
            key={w}
            size="xs"
            label={words[w]}
            checked={limited.includes(w)}
            disabled={limit.isPending}
            onChange={(e) =>
              limit.mutate(e.currentTarget.checked ? [...limited, w] : limited.filter((l) => l !== w))
            }
          />
        ))}
        {own.data.limited && (
          <button type="button" className="link small" onClick={() => limit.mutate(null)}>
            As usual
          </button>
        )}
      </span>
      {own.data.limited && own.data.ways.length === 0 && (
        <p className="late small" role="alert" style={{ margin: 0 }}>
          This client has no way to pay.
        </p>
      )}
      <Refusal error={limit.error} />
    </fieldset>
  );
}
