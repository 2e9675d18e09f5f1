import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { savedOf } from '../api/clients';
import { api, data, messageOf } from '../api/client';
import { copyLink } from '../design/copyLink';
import { longDate, money, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';

/** What is kept of a client, planned and asked for. */
export function SavedMethods({ id }: { id: number }) {
  const queries = useQueryClient();
  const saved = useQuery(savedOf(id));
  const [asked, setAsked] = useState<number | null>(null);
  const done = (answer: typeof saved.data) => {
    queries.setQueryData(savedOf(id).queryKey, answer);
    void queries.invalidateQueries();
  };
  const path = { id };
  const remove = useMutation({
    mutationFn: (method: number) =>
      data(api.DELETE('/api/clients/{id}/saved-methods/{method}', { params: { path: { ...path, method } } })),
    onSuccess: done,
  });
  const ask = useMutation({
    mutationFn: () => data(api.POST('/api/clients/{id}/method-requests', { params: { path } })),
    onSuccess: (answer) => {
      done(answer.saved);
      tell(
        answer.sent
          ? 'The letter that asks for it goes now.'
          : 'They have no e-mail address: copy the link, or open its page with them.',
      );
    },
    onError: (error) => tell(messageOf(error)),
  });
  const withdraw = useMutation({
    mutationFn: (request: number) =>
      data(
        api.DELETE('/api/clients/{id}/method-requests/{request}', {
          params: { path: { ...path, request } },
        }),
      ),
    onSuccess: done,
  });
  const s = saved.data;
  if (!s || (!s.possible && s.methods.length === 0)) return null;
  return (
    <section aria-label="Kept for later payments">
      <h2>Kept for later payments</h2>
      {s.methods.length === 0 && <p className="faded">No card or mandate of theirs is kept.</p>}
      {s.methods.map((m) => (
        <div key={m.id} style={{ margin: '6px 0' }}>
          <b>{m.words}</b>
          {m.validUntil && (
            <span className={m.expired ? 'late' : 'faded'}>
              {' '}
              {m.expired ? 'expired' : 'valid until'} {m.validUntil}
            </span>
          )}
          {asked === m.id ? (
            <>
              {' '}
              <span>It cannot be used any more then.</span>{' '}
              <button
                type="button"
                className="link"
                autoFocus
                disabled={remove.isPending}
                onClick={() => remove.mutate(m.id)}
              >
                Yes, remove it
              </button>{' '}
              <button type="button" className="link" onClick={() => setAsked(null)}>
                No
              </button>
            </>
          ) : (
            <>
              {' '}
              <button type="button" className="link" onClick={() => setAsked(m.id)}>
                Remove
              </button>
            </>
          )}
          <div className="faded small">
            {shortDate(m.keptOn)}: “{m.agreed}”
          </div>
        </div>
      ))}
      {s.planned.map((p) => (
        <p key={p.id} style={{ margin: '6px 0' }}>
          {money(p.amount)} on <Link to={`/invoices/${p.documentId}`}>{p.number}</Link> is taken on{' '}
          {longDate(p.on)} from {p.from}, as they planned. <Link to={`/money-in/planned-${p.id}`}>Open</Link>
        </p>
      ))}
      {s.asked ? (
        <p style={{ margin: '6px 0' }}>
          Asked for one since {longDate(s.asked.askedOn)}.{' '}
          <button type="button" className="link" onClick={() => void copyLink(s.asked?.page ?? '')}>
            Copy the link
          </button>{' '}
          <a className="link" href={s.asked.page} target="_blank" rel="noreferrer">
            Open its page
          </a>{' '}
          <button type="button" className="link" onClick={() => withdraw.mutate(s.asked?.id ?? 0)}>
            Ask no more
          </button>
        </p>
      ) : (
        s.possible && (
          <p style={{ margin: '6px 0' }}>
            <button type="button" className="link" disabled={ask.isPending} onClick={() => ask.mutate()}>
              Ask for {s.methods.length ? 'another' : 'a'} card or mandate
            </button>
          </p>
        )
      )}
      <Refusal error={remove.error ?? withdraw.error} />
    </section>
  );
}
