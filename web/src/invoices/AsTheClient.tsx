import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { PageBody } from '../client/PageBody';
import '../client/client.css';
import { Loaded } from '../design/States';
import { plainSlip } from '../letters/slip';
import css from './Sheet.module.css';
import letters from '../letters/Letters.module.css';
import { Dialog } from '../design/Dialog';

/** The page and the letter exactly as the client will get them. Nothing is issued, sent or noted by looking. */
export function AsTheClient({
  id,
  page,
  version,
  onClose,
}: {
  id: number;
  /** As it was looked at a moment ago. */
  page: Schemas['PublicPage'];
  version: number;
  onClose: () => void;
}) {
  const [tab, setTab] = useState<'page' | 'letter'>('page');
  const letter = useQuery({
    queryKey: ['invoice', id, 'letter-look', version],
    gcTime: 0,
    enabled: tab === 'letter',
    queryFn: () =>
      data(
        api.POST('/api/invoices/{id}/letter', {
          params: { path: { id } },
          body: { version, slip: plainSlip },
        }),
      ),
  });
  return (
    <Dialog onClose={onClose} size="lg" title="As the client will see it">
      <div className={css.tabs} role="tablist">
        {(['page', 'letter'] as const).map((t) => (
          <button key={t} type="button" role="tab" aria-selected={tab === t} onClick={() => setTab(t)}>
            {t === 'page' ? 'The page' : 'The letter'}
          </button>
        ))}
      </div>
      {tab === 'page' ? (
        <div className={css.phonePage} tabIndex={0} role="group" aria-label="The client’s page">
          <PageBody page={page} token={null} onStale={() => undefined} />
        </div>
      ) : (
        <Loaded query={letter} what="The letter">
          {(l) => (
            <>
              <p className="faded small">
                {l.to ? `To ${l.to}` : 'No address yet'} · {l.subject}
                {l.files.length > 0 && ` · with ${l.files.join(', ')}`}
              </p>
              <div className={`letter ${letters.letter}`} tabIndex={0} role="group" aria-label="The letter">
                {l.text}
              </div>
            </>
          )}
        </Loaded>
      )}
    </Dialog>
  );
}
