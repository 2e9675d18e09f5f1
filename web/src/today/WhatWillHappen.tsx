import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { longDate, money, spokenDate } from '../design/format';
import { Refusal } from '../design/States';
import { WhyFigure } from '../design/Why';
import { ActDeeds } from './ActDeeds';
import { KeepBack } from './KeepBack';
import { useSteady } from './useSteady';
import css from './Today.module.css';
import { actsAfter } from '../api/today';

type Act = Schemas['ActView'];

function ActItem({ act, gone }: { act: Act; gone: boolean }) {
  const [done, setDone] = useState('');
  return (
    <li className={act.stop === 'NOTHING' && !gone ? undefined : 'stopped'}>
      <span className="when figures">{act.hour}</span>
      <span className="grow">
        <Link className={css.quiet} to={`/invoices/${act.about.invoiceId}`}>
          <b>{act.about.client}</b>
        </Link>
        , <WhyFigure text={money(act.amount)} why={act.why} />
        <br />
        <span className="faded">{act.about.what}</span>
        {(gone || act.stopped) && (
          <>
            <br />
            <b className="soon">{gone ? done || 'This is not to come any more.' : act.stopped}</b>
          </>
        )}
      </span>
      {!gone && (
        <span className={`right ${css.deeds}`}>
          <ActDeeds act={act} onDone={setDone} />
        </span>
      )}
    </li>
  );
}

/** What the daily run will do in the next seven days, in its order; each act can be kept back or done now. */
export function WhatWillHappen({
  acts: first,
  moreActs,
  allKeptBack,
  allKeptUntil,
  today,
}: {
  acts: Act[];
  moreActs: string | null;
  allKeptBack: boolean;
  allKeptUntil: string | null;
  today: string;
}) {
  const more = useInfiniteQuery(actsAfter(moreActs));
  const acts = [...first, ...(more.data?.pages.flatMap((p) => p.acts) ?? [])].sort((a, b) =>
    a.on.localeCompare(b.on),
  );
  const hasMore = more.data ? more.hasNextPage : moreActs !== null;
  const [keeping, setKeeping] = useState(false);
  const all = useMutation({
    mutationFn: (until: string | null) =>
      data(api.PUT('/api/acts/all', { body: { keptBack: until !== null, until } })),
    onSuccess: () => setKeeping(false),
  });
  const { ref, rows } = useSteady(acts, (a) => a.key);
  const days = [...new Set(rows.map((r) => r.item.on))];
  return (
    <section aria-label="What will happen" ref={ref}>
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
          Everything is kept back{allKeptUntil && ` until ${longDate(allKeptUntil)}`}: nothing is sent or
          charged by itself.{' '}
          <button type="button" className="link" onClick={() => all.mutate(null)}>
            Stop keeping back
          </button>
        </p>
      )}
      {rows.length === 0 ? (
        <p className="faded">Nothing happens by itself in the next seven days.</p>
      ) : (
        <div className={css.actsList}>
          {days.map((day) => (
            <div key={day}>
              <h3 className={css.dayHead}>{day === today ? 'Today' : spokenDate(day)}</h3>
              <ul className="list">
                {rows
                  .filter((r) => r.item.on === day)
                  .map((r) => (
                    <ActItem key={r.item.key} act={r.item} gone={r.gone} />
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
          {keeping ? (
            <KeepBack keep={all} />
          ) : (
            <button type="button" className="link" onClick={() => setKeeping(true)}>
              Keep everything back…
            </button>
          )}
        </p>
      )}
      <Refusal error={problemOf(all.error, 'until') ? null : all.error} />
    </section>
  );
}
