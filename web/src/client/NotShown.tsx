import { messageOf } from '../api/client';

/** In the place of a page that is still on its way, or cannot be shown. */
export function NotShown({ failed }: { failed: unknown }) {
  return (
    <main className="client">
      {failed ? (
        <>
          <p className="ask">This page cannot be shown.</p>
          <p className="told refused" role="alert">
            {messageOf(failed)}
          </p>
        </>
      ) : (
        <p className="faded">One moment…</p>
      )}
    </main>
  );
}
