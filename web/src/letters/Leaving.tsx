import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { Refusal } from '../design/States';
import css from './Letters.module.css';

const leaving = {
  queryKey: ['leaving'],
  queryFn: () => data(api.GET('/api/messages/leaving')),
};

/** Calls a letter back, wherever it is shown. */
export function useCallingBack(id: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => data(api.POST('/api/messages/{id}/calling-back', { params: { path: { id } } })),
    onSettled: () => void queries.invalidateQueries(),
  });
}

/** Letters on their way that can still be called back, wherever one is. It lies over the page and moves nothing. */
export function Leaving() {
  const queries = useQueryClient();
  const letters = useQuery(leaving);
  const some = (letters.data?.length ?? 0) > 0;
  // It is counted down here, and asked again at the end.
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!some) return;
    const timer = window.setInterval(() => setNow(Date.now()), 500);
    return () => window.clearInterval(timer);
  }, [some]);
  const passed = some ? Math.max(0, Math.floor((now - letters.dataUpdatedAt) / 1000)) : 0;
  const over = some && (letters.data ?? []).some((m) => (m.leaves?.in ?? 0) - passed < 0);
  useEffect(() => {
    if (over) void queries.invalidateQueries();
  }, [over, queries]);
  if (!some) return null;
  return (
    <div className={`leaving ${css.leaving}`} role="status" aria-label="On its way">
      {letters.data?.map((m) => (
        <LeavingLetter key={m.id} letter={m} left={Math.max(0, (m.leaves?.in ?? 0) - passed)} />
      ))}
    </div>
  );
}

function LeavingLetter({ letter, left }: { letter: Schemas['Message']; left: number }) {
  const call = useCallingBack(letter.id);
  return (
    <p>
      <span>
        {letter.subject}, to {[letter.addresses.to, ...letter.addresses.copies].join(', ')}
      </span>{' '}
      <span className="figures" aria-hidden="true">
        leaves in {left} s
      </span>{' '}
      <button type="button" className="link" disabled={call.isPending} onClick={() => call.mutate()}>
        Call back
      </button>
      <Refusal error={call.error} />
    </p>
  );
}
