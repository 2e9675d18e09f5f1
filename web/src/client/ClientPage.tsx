import { useCallback, useEffect, useRef, useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { PageBody } from './PageBody';
import { NotShown } from './NotShown';
import { useNews } from './useNews';

type Page = Schemas['PublicPage'];

/** The page's data: loaded, asked for again when the payer is back, and kept fresh by events. */
function usePage(token: string) {
  const [page, setPage] = useState<Page | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  const latest = useRef(0);
  const load = useCallback(
    async (back: boolean) => {
      // An answer that a later one overtook is of before it.
      const mine = ++latest.current;
      const options = { params: { path: { token } } };
      try {
        const answer = await data(
          back ? api.POST('/api/public/{token}/back', options) : api.GET('/api/public/{token}', options),
        );
        if (mine !== latest.current) return;
        // What was said to somebody who came back stands until something changes.
        setPage((before) => ({
          ...answer,
          moving: {
            ...answer.moving,
            said:
              answer.moving.said ?? (before?.open.amount === answer.open.amount ? before.moving.said : null),
          },
        }));
        setFailed(null);
      } catch (error) {
        if (mine === latest.current) setFailed(error);
      }
    },
    [token],
  );
  useEffect(() => {
    const back = new URLSearchParams(window.location.search).has('back');
    void load(back);
    if (back) window.history.replaceState(null, '', window.location.pathname);
    // A page that was kept while the payer was away shows old figures: look again.
    const shown = (event: PageTransitionEvent) => event.persisted && void load(true);
    window.addEventListener('pageshow', shown);
    return () => window.removeEventListener('pageshow', shown);
  }, [token, load]);
  // Not before it is shown: what is said to somebody who came back would be asked for twice, and said to nobody.
  useNews(
    token,
    page !== null,
    useCallback(() => void load(false), [load]),
  );
  return { page, failed, load, setPage };
}

/** What one client sees: who asks, for what, how much, by when; then the ways to pay, then the lines. */
export function ClientPage({ token }: { token: string }) {
  const { page, failed, load, setPage } = usePage(token);
  if (!page) return <NotShown failed={failed} />;
  return (
    <PageBody
      page={page}
      token={token}
      onPage={setPage}
      onPaid={() => void load(true)}
      onStale={() => void load(false)}
    />
  );
}
