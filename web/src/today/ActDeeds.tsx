import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { Refusal } from '../design/States';
import { SendDialog } from '../letters/SendDialog';
import { plainSlip } from '../letters/slip';

/** What can be done about something that is done by itself: kept back, let go, or done now. */
export function ActDeeds({ act, onDone }: { act: Schemas['ActView']; onDone?: (said: string) => void }) {
  const queries = useQueryClient();
  const [looking, setLooking] = useState(false);
  const body = { key: act.key, clientId: act.about.clientId };
  const decide = useMutation({
    mutationFn: (what: 'keeping-back' | 'letting-go' | 'doing-now') => {
      if (what === 'keeping-back') return data(api.POST('/api/acts/keeping-back', { body }));
      if (what === 'letting-go') return data(api.POST('/api/acts/letting-go', { body }));
      return data(api.POST('/api/acts/doing-now', { body: { ...body, slip: plainSlip } }));
    },
    onSuccess: (_, what) => {
      onDone?.(what === 'doing-now' ? 'Charged.' : '');
      void queries.invalidateQueries();
    },
  });
  const kept = act.stop === 'KEPT_BACK';
  const fee = act.kind === 'fee';
  const [now, letGo] = fee ? ['Charge now', 'Charge after all'] : ['Send now…', 'Send after all'];
  return (
    <>
      {(act.stop === 'NOTHING' || kept) && (
        <button
          type="button"
          className="link"
          disabled={decide.isPending}
          title={kept ? 'It is done on its day' : undefined}
          aria-label={`${kept ? letGo : 'Keep back'}: ${act.about.what}, ${act.about.client}`}
          onClick={() => decide.mutate(kept ? 'letting-go' : 'keeping-back')}
        >
          {kept ? letGo : 'Keep back'}
        </button>
      )}
      {act.canDoNow && act.stop !== 'REVIEW' && (
        <button
          type="button"
          className="link"
          disabled={decide.isPending}
          aria-label={`${now.replace('…', '')}: ${act.about.what}, ${act.about.client}`}
          onClick={() => (fee ? decide.mutate('doing-now') : setLooking(true))}
        >
          {now}
        </button>
      )}
      <Refusal error={decide.error} />
      {looking && (
        <SendDialog
          title={`Reminder to ${act.about.client}`}
          action="Send now"
          first={act.way ?? 'MAIL'}
          look={(slip) => data(api.POST('/api/acts/letter', { body: { ...body, slip } }))}
          send={async (slip) => {
            await data(api.POST('/api/acts/doing-now', { body: { ...body, slip } }));
            onDone?.('Written; it leaves in a moment.');
          }}
          onClose={() => setLooking(false)}
        />
      )}
    </>
  );
}
