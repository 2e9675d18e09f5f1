import { useEffect, useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { type Keep, MayCollect } from './Saved';
import { NotShown } from './NotShown';

type Page = Schemas['AskedPage'];

/** The page by which a client is asked to let a card or a bank account be kept, before anything is due. */
export function KeepPage({ token }: { token: string }) {
  const [page, setPage] = useState<Page | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  const [keep, setKeep] = useState<Keep>({ collects: false, most: '' });
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState<unknown>(null);
  useEffect(() => {
    const back = new URLSearchParams(window.location.search).has('back');
    if (back) window.history.replaceState(null, '', window.location.pathname);
    const path = { params: { path: { token } } };
    const load = () =>
      data(
        back ? api.POST('/api/public/{token}/asked/back', path) : api.GET('/api/public/{token}/asked', path),
      ).then(setPage, setFailed);
    void load();
    const shown = () => {
      setGoing(false);
      void data(api.POST('/api/public/{token}/asked/back', path)).then(setPage, () => {});
    };
    const again = (event: PageTransitionEvent) => event.persisted && shown();
    window.addEventListener('pageshow', again);
    return () => window.removeEventListener('pageshow', again);
  }, [token]);
  if (!page) return <NotShown failed={failed} />;
  const give = async () => {
    setGoing(true);
    setRefusal(null);
    try {
      const { address } = await data(
        api.POST('/api/public/{token}/asked/keeping', { params: { path: { token } }, body: keep }),
      );
      window.location.assign(address);
    } catch (error) {
      setRefusal(error);
      setGoing(false);
    }
  };
  const remove = async () => {
    setRefusal(null);
    try {
      setPage(await data(api.DELETE('/api/public/{token}/asked/given', { params: { path: { token } } })));
    } catch (error) {
      setRefusal(error);
    }
  };
  const limit = refusal instanceof ApiError ? refusal.of('keep.most') : undefined;
  return (
    <main className="client">
      <header className="top">
        <b>{page.from}</b>
      </header>
      <h1 style={{ position: 'absolute', left: -9999 }}>A card or bank account for {page.from}</h1>
      {page.state === 'asked' ? (
        <>
          <p className="ask">
            {page.to}, {page.from} asks to keep a card or a bank account of yours{' '}
            <b>for what you pay later</b>.
          </p>
          <p>
            Nothing is taken now. The card company keeps the number; {page.from} never sees it. You can have
            it removed at any time, on the page of any invoice.
          </p>
          <MayCollect from={page.from} keep={keep} wrong={limit} onChange={setKeep} />
          {refusal !== null && !limit && (
            <p className="told refused" role="alert">
              {messageOf(refusal)}
            </p>
          )}
          <button type="button" className="pay" disabled={going} onClick={() => void give()}>
            Give a card or account
          </button>
          <p className="faded small">It is typed on the card company’s own page.</p>
        </>
      ) : page.state === 'given' ? (
        page.given ? (
          <>
            <p className="ask">
              Thank you. <b>{page.given}</b> is kept for later; nothing more is to be done.
            </p>
            <button type="button" className="text-button" onClick={() => void remove()}>
              Have it removed
            </button>
            {refusal !== null && (
              <p className="told refused" role="alert">
                {messageOf(refusal)}
              </p>
            )}
          </>
        ) : (
          <p className="ask">
            What you gave is removed: <b>nothing is kept</b>, and nothing is taken from it.
          </p>
        )
      ) : (
        <p className="ask">{page.from} does not ask for this any more. Nothing was kept.</p>
      )}
    </main>
  );
}
