import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import { isZero, money, shortDate } from '../design/format';
import { Refusal } from '../design/States';

const standing = (a: Schemas['AskedView']) =>
  a.withdrawnOn
    ? `withdrawn ${shortDate(a.withdrawnOn)}`
    : isZero(a.missing)
      ? 'it has come'
      : isZero(a.came)
        ? 'not come yet'
        : `${money(a.came)} came, ${money(a.missing)} did not yet`;

/** What was asked for on a document before it fell due, and what came of it. */
export function Asked({ id }: { id: number }) {
  const queries = useQueryClient();
  const asked = useQuery({
    queryKey: ['requests', id],
    queryFn: () => data(api.GET('/api/documents/{id}/requests', { params: { path: { id } } })),
  });
  const withdraw = useMutation({
    mutationFn: (request: number) =>
      data(api.POST('/api/requests/{id}/withdrawal', { params: { path: { id: request } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (!asked.data?.length) return null;
  return (
    <>
      <h2>Asked for</h2>
      <ul style={{ listStyle: 'none', margin: '0 0 18px', padding: 0 }}>
        {asked.data.map((a) => (
          <li key={a.id} style={{ margin: '4px 0' }}>
            <b>{money(a.amount)}</b>, {a.what}, {shortDate(a.on)}:{' '}
            <span className={a.withdrawnOn ? 'faded' : isZero(a.missing) ? 'got' : 'soon'}>
              {standing(a)}
            </span>{' '}
            {!a.withdrawnOn && !isZero(a.missing) && (
              <button type="button" className="link" onClick={() => withdraw.mutate(a.id)}>
                Ask for it no more
              </button>
            )}
          </li>
        ))}
      </ul>
      <Refusal error={withdraw.error} />
    </>
  );
}
