import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import { spokenMoment } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { useTitle } from '../design/useTitle';
import { accessLog, sessions as sessionsQuery } from '../api/session';

function SessionItem({ session: s }: { session: Schemas['SessionView'] }) {
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: () => data(api.DELETE('/api/sessions/{key}', { params: { path: { key: s.key } } })),
    onSuccess: (left) => {
      queries.setQueryData(sessionsQuery.queryKey, left);
      void queries.invalidateQueries({ queryKey: accessLog.queryKey });
    },
  });
  return (
    <li>
      <span className="grow">
        <b>{s.browser || 'A program'}</b> from {s.from}
        {s.own && ', this one'}
        <br />
        <span className="faded">
          since {spokenMoment(s.began)}, last active {spokenMoment(s.active)}
        </span>
        <Refusal error={end.error} />
      </span>
      {!s.own && (
        <Button variant="outline" size="xs" loading={end.isPending} onClick={() => end.mutate()}>
          End it
        </Button>
      )}
    </li>
  );
}

/** Where one is signed in, and who signed in, or tried to. */
export function AccessPage() {
  useTitle('Sign-ins');
  const sessions = useQuery(sessionsQuery);
  const log = useQuery(accessLog);
  return (
    <>
      <h1>Sign-ins</h1>
      <p className="faded">
        A session ends after twelve hours without a key or a click, and after fourteen days in all. The books
        have a password of their own, made at the first start: it keeps other programs of this machine out. It
        encrypts nothing; whoever has the disk can read it.
      </p>
      <h2>Signed in now</h2>
      <Loaded query={sessions} what="the sessions">
        {(all) => (
          <ul className="list">
            {all.map((s) => (
              <SessionItem key={s.key} session={s} />
            ))}
          </ul>
        )}
      </Loaded>
      <h2 style={{ marginTop: 28 }}>What happened</h2>
      <Loaded query={log} what="the log">
        {(lines) =>
          lines.length === 0 ? (
            <p className="faded">Sign-ins, failures and changes of what matters stand here.</p>
          ) : (
            <ul className="list">
              {lines.map((l) => (
                <li key={l.id}>
                  <span className="grow">
                    <b>{l.what}</b>
                    {l.times > 1 && `, ${l.times} times`} · {l.who}
                    <br />
                    <span className="faded">
                      {spokenMoment(l.at)}, from {l.from}
                      {l.browser && `, ${l.browser}`}
                    </span>
                  </span>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
    </>
  );
}
