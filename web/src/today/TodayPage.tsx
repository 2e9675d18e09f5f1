import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../api/client';
import { todayOf } from '../api/today';
import { isZero, money } from '../design/format';
import { useOneLeaf } from '../design/useNarrow';
import { Loaded } from '../design/States';
import { Almanac } from './Almanac';
import { Beginning } from './Beginning';
import { NeedsYou } from './NeedsYou';
import { WhatWillHappen } from './WhatWillHappen';
import { useTitle } from '../design/useTitle';
import css from './Today.module.css';

type View = Schemas['TodayView'];

function Sentence({ sentence: s }: { sentence: Schemas['Sentence'] }) {
  const clients = (n: number) => (n === 1 ? 'one client' : `${n} clients`);
  return (
    <p className="sentence">
      {isZero(s.late) ? (
        'Nothing is late. '
      ) : (
        <>
          <b className="late figures">{money(s.late)} is late</b>
          {s.lateClients === 1
            ? ` from ${s.most}. `
            : ` from ${clients(s.lateClients)}, most of it from ${s.most}. `}
        </>
      )}
      {isZero(s.week) ? (
        'Nothing falls due in the next seven days'
      ) : (
        <>
          <b className="figures">{money(s.week)}</b> falls due in the next seven days, from{' '}
          {clients(s.weekClients)}
        </>
      )}
      {isZero(s.open) ? (
        '.'
      ) : (
        <>
          ; <b className="figures">{[s.open, ...s.inOthers].map((o) => money(o)).join(' and ')}</b>{' '}
          {s.inOthers.length > 0 ? 'are' : 'is'} open in all.
        </>
      )}
    </p>
  );
}

const spans = [
  [6, '6 weeks'],
  [12, '12 weeks'],
  [26, 'half a year'],
  [52, 'a year'],
] as const;

/** How far the Almanac looks; plus and minus change it too. The address holds it. */
function Zoom({ weeks, zoom }: { weeks: number; zoom: (weeks: number) => void }) {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (/INPUT|TEXTAREA|SELECT/.test(target.tagName) || event.ctrlKey || event.metaKey) return;
      const at = spans.findIndex(([w]) => w === weeks);
      const next = event.key === '-' ? spans[at + 1] : event.key === '+' ? spans[at - 1] : undefined;
      if (next) zoom(next[0]);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [weeks, zoom]);
  return (
    <span className={css.zoom} role="group" aria-label="How far the Almanac looks">
      {spans.map(([w, words]) => (
        <button key={w} type="button" className="link" aria-pressed={w === weeks} onClick={() => zoom(w)}>
          {words}
        </button>
      ))}
    </span>
  );
}

export function TodayPage() {
  useTitle('Today');
  const [search, setSearch] = useSearchParams();
  // On a phone what needs the person comes first, then what will happen, then who owes.
  const narrow = useOneLeaf();
  const weeks = spans.find(([w]) => String(w) === search.get('weeks'))?.[0] ?? (narrow ? 6 : 12);
  const today = useQuery(todayOf(weeks));
  const almanac = (t: View) => (
    <section aria-label="The Almanac">
      <div className="part-head">
        <h2>The Almanac</h2>
        <Zoom weeks={weeks} zoom={(w) => setSearch({ weeks: String(w) }, { replace: true })} />
      </div>
      {t.lanes.length ? <Almanac view={t} /> : <Beginning />}
    </section>
  );
  const coming = (t: View) => (
    <WhatWillHappen
      acts={t.acts}
      moreActs={t.moreActs}
      allKeptBack={t.allKeptBack}
      allKeptUntil={t.allKeptUntil ?? null}
      today={t.today}
    />
  );
  const needs = (t: View) => <NeedsYou needs={t.needs} />;
  return (
    <Loaded query={today} what="today">
      {(t) => (
        <div className={css.today}>
          <h1 style={{ position: 'absolute', left: -9999 }}>Today</h1>
          <Sentence sentence={t.sentence} />
          <div className={css.columns}>
            {narrow ? (
              <>
                {needs(t)}
                {coming(t)}
                {almanac(t)}
              </>
            ) : (
              <>
                {almanac(t)}
                <div>
                  {coming(t)}
                  <div style={{ height: 22 }} />
                  {needs(t)}
                </div>
              </>
            )}
          </div>
        </div>
      )}
    </Loaded>
  );
}
