import { useEffect, useState } from 'react';
import { api, data } from '../api/client';
import { ClientPage } from './ClientPage';
import { QuotePage } from './QuotePage';
import { LinkPage } from './LinkPage';
import { KeepPage } from './KeepPage';
import { NotShown } from './NotShown';

/** Whatever a client's link leads to. @param payer of what was begun on the page of a payment link; null before that */
export function AnyPage({ token, payer }: { token: string; payer: string | null }) {
  const [kind, setKind] = useState<string | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  useEffect(() => {
    data(api.GET('/api/public/{token}/kind', { params: { path: { token } } })).then(
      (leads) => setKind(leads.kind),
      (error: unknown) => setFailed(error),
    );
  }, [token]);
  if (kind === 'quote') return <QuotePage token={token} />;
  if (kind === 'link') return <LinkPage token={token} payer={payer} />;
  if (kind === 'keep') return <KeepPage token={token} />;
  if (kind) return <ClientPage token={token} />;
  return <NotShown failed={failed} />;
}
