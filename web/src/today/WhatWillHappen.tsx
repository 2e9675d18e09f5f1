import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { money, spokenDate } from '../design/format';
import { Refusal } from '../design/States';
import { type Asked, WhyNote } from '../design/Why';

type Act = Schemas['ActView'];

function ActItem({ act, onAsk }: { act: Act; onAsk: (asked: Asked) => void }) {
  const decide = useMutation({
    mutationFn: (what: 'keeping-back' | 'letting-go' | 'doing-now') => {
      const body = { body: { key: act.key, clientId: act.clientId } };
      if (what === 'keeping-back') return data(api.POST('/api/acts/keeping-back', body));
      if (what === 'letting-go') return data(api.POST('/api/acts/letting-go', body));
      return data(api.POST('/api/acts/doing-now', body));
    },
  });
  const kept = act.stop === 'KEPT_BACK';
  const [now, afterAll] =
    act.kind === 'fee' ? ['Charge now', 'Charge after all'] : ['Send now', 'Send after all'];
  return (
    <li className={act.stop === 'NOTHING' ? undefined : 'stopped'}>
      <span className="when figures">{act.hour}</span>
      <span className="grow">
        <Link className="quiet" to={`/invoices/${act.invoiceId}`}>
          <b>{act.client}</b>
        </Link>
        ,{' '}
        <button
          type="button"
          className="figure-why money"
          title="Why?"
          onClick={() => onAsk({ title: money(act.amount), why: act.why })}
        >
          {money(act.amount)}
        </button>
        <br />
        <span className="faded">{act.what}</span>
        {act.stopped && (
          <>
            <br />
            <b className="soon">{act.stopped}</b>
          </>
        )}
        <Refusal error={decide.error} />
      </span>
      <span className="right deeds">
        {(act.stop === 'NOTHING' || kept) && (
          <button
            type="button"
            className="link"
            disabled={decide.isPending}
            aria-label={`${kept ? afterAll : 'Keep back'}: ${act.what}, ${act.client}`}
            onClick={() => decide.mutate(kept ? 'letting-go' : 'keeping-back')}
          >
            {kept ? afterAll : 'Keep back'}
          </button>
        )}
        {act.canDoNow && act.stop !== 'REVIEW' && (
          <>
            <button
              type="button"
              className="link"
              disabled={decide.isPending}
              aria-label={`${now}: ${act.what}, ${act.client}`}
              onClick={() => decide.mutate('doing-now')}
            >
              {now}
            </button>
          </>
        )}
      </span>
    </li>
  );
}

/** What the daily run will do in the next seven days, in its order; each act can be kept back or done now. */
export function WhatWillHappen({
  acts: first,
  moreActs,
  allKeptBack,
  today,
}: {
  acts: Act[];
  moreActs: string | null;
  allKeptBack: boolean;
  today: string;
}) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const more = useInfiniteQuery({
    queryKey: ['today', 'acts', moreActs],
    enabled: false,
    initialPageParam: moreActs ?? '',
    queryFn: ({ pageParam: after }) => data(api.GET('/api/acts', { params: { query: { after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
  });
  const acts = [...first, ...(more.data?.pages.flatMap((p) => p.acts) ?? [])].sort((a, b) =>
    a.on.localeCompare(b.on),
  );
  const hasMore = more.data ? more.hasNextPage : moreActs !== null;
  const all = useMutation({
    mutationFn: (keptBack: boolean) => data(api.PUT('/api/acts/all', { body: { keptBack } })),
  });
  const days = [...new Set(acts.map((a) => a.on))];
  return (
    <section aria-label="What will happen">
      <div className="part-head">
        <h2>What will happen</h2>
        <span className="small">
          <Link className="link" to="/done">
            Done so far
          </Link>
        </span>
      </div>
      {allKeptBack && (
        <p className="alert">
          Everything is kept back: nothing is sent or charged by itself.{' '}
          <button type="button" className="link" onClick={() => all.mutate(false)}>
            Stop keeping back
          </button>
        </p>
      )}
      {asked && <WhyNote asked={asked} />}
      {acts.length === 0 ? (
        <p className="faded">Nothing happens by itself in the next seven days.</p>
      ) : (
        <div className="acts-list">
          {days.map((day) => (
            <div key={day}>
              <h3 className="day-head">{day === today ? 'Today' : spokenDate(day)}</h3>
              <ul className="list">
                {acts
                  .filter((a) => a.on === day)
                  .map((a) => (
                    <ActItem key={a.key} act={a} onAsk={setAsked} />
                  ))}
              </ul>
            </div>
          ))}
        </div>
      )}
      {hasMore && (
        <p className="small">
          <button
            type="button"
            className="link"
            disabled={more.isFetching}
            onClick={() => void (more.data ? more.fetchNextPage() : more.refetch())}
          >
            Show what else happens in the next seven days
          </button>
        </p>
      )}
      {!allKeptBack && acts.length > 0 && (
        <p className="small" style={{ margin: '8px 0 0' }}>
          <button type="button" className="link" onClick={() => all.mutate(true)}>
            Keep everything back
          </button>
        </p>
      )}
      <Refusal error={all.error} />
    </section>
  );
}
