import { type KeyboardEvent, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../api/client';
import { daysBetween, isZero, longDate, money, plain, shortDate } from '../design/format';
import { MarkShape } from './MarkShape';
import css from './Today.module.css';

type Mark = Schemas['Mark'];
type Today = Schemas['TodayView'];

const DENSE = 22;

/** Sized by amount: the area grows with it. For drawing only. */
function sideOf(mark: Mark, dense: boolean): number {
  if (mark.kind !== 'installment') return 14;
  const [least, more] = dense ? [7, 12] : [9, 19];
  return Math.round(least + more * Math.sqrt(Math.min(1000, mark.size) / 1000));
}

/** A mark in a sentence, for reading out. */
function reading(client: string, m: Mark): string {
  const amount = m.amount ? money(m.amount) : '';
  if (m.kind === 'reminder')
    return m.standing === 'COMING'
      ? `${client}: ${m.what}, ${amount}, goes on ${longDate(m.on)}`
      : `${client}: reminder sent ${longDate(m.on)} · ${m.what}`;
  if (m.kind === 'quote') return `${client}: quote ${m.what}, ${amount}, holds until ${longDate(m.on)}`;
  if (m.kind === 'asked')
    return `${client}: ${amount} asked for on ${longDate(m.on)} has not come · quote ${m.what}`;
  if (m.kind === 'milestone') return `${client}: ${amount}, no day yet · ${m.what}`;
  if (m.kind === 'fee')
    return m.standing === 'COMING'
      ? `${client}: ${m.what}, to be charged on ${longDate(m.on)}`
      : `${client}: late fee of ${amount} charged ${longDate(m.on)} on ${m.what}`;
  const how =
    m.standing === 'LATE'
      ? `was due ${longDate(m.on)}, ${m.daysLate} ${m.daysLate === 1 ? 'day' : 'days'} late`
      : m.standing === 'SETTLED'
        ? `fell due ${longDate(m.on)}, paid`
        : `falls due ${longDate(m.on)}`;
  return `${client}: ${amount} ${how} · ${m.what}`;
}

/** Arrow keys walk the marks: left and right along a lane, up and down to the nearest mark of the next lane. */
function walk(event: KeyboardEvent<HTMLElement>) {
  const key = event.key;
  const here = event.target as HTMLElement;
  if (!key.startsWith('Arrow') || !here.dataset['mark']) return;
  event.preventDefault();
  const lanes = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-lane]')];
  const lane = lanes.findIndex((l) => l.contains(here));
  const marksOf = (l: HTMLElement | undefined) =>
    l ? [...l.querySelectorAll<HTMLElement>('[data-mark]')] : [];
  if (key === 'ArrowLeft' || key === 'ArrowRight') {
    const marks = marksOf(lanes[lane]);
    marks[marks.indexOf(here) + (key === 'ArrowRight' ? 1 : -1)]?.focus();
    return;
  }
  const step = key === 'ArrowDown' ? 1 : -1;
  let next = lane + step;
  while (lanes[next] && marksOf(lanes[next]).length === 0) next += step;
  const left = here.getBoundingClientRect().left;
  marksOf(lanes[next])
    .sort(
      (a, b) =>
        Math.abs(a.getBoundingClientRect().left - left) - Math.abs(b.getBoundingClientRect().left - left),
    )[0]
    ?.focus();
}

function ticksOf(from: string, span: number): string[] {
  const step = span <= 90 ? 14 : span <= 190 ? 28 : 56;
  return Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => {
    const date = new Date(`${from}T00:00:00Z`);
    date.setUTCDate(date.getUTCDate() + step * i);
    return date.toISOString().slice(0, 10);
  });
}

/** A key that a mark keeps when the Almanac looks further, so that it keeps the focus. */
function keysOf(marks: Mark[]): string[] {
  const seen = new Map<string, number>();
  return marks.map((m) => {
    const key = `${m.kind}-${m.invoiceId}-${m.on}`;
    const count = (seen.get(key) ?? 0) + 1;
    seen.set(key, count);
    return `${key}-${count}`;
  });
}

/** The marks of a lane. One tab stop; the arrow keys walk the rest. */
function Marks({
  lane,
  dense,
  at,
  onRead,
}: {
  lane: Schemas['Lane'];
  dense: boolean;
  at: (date: string) => string;
  onRead: (words: string) => void;
}) {
  const navigate = useNavigate();
  const keys = keysOf(lane.marks);
  return lane.marks.map((m, i) => (
    <button
      key={keys[i]}
      type="button"
      data-mark="1"
      tabIndex={i === 0 ? 0 : -1}
      className={`mark ${css.mark} ${css[m.kind] ?? ''}`}
      style={{ left: at(m.on) }}
      aria-label={reading(lane.client, m)}
      onMouseEnter={() => onRead(reading(lane.client, m))}
      onFocus={() => onRead(reading(lane.client, m))}
      onClick={() =>
        void navigate(`/${m.kind === 'quote' || m.kind === 'asked' ? 'quotes' : 'invoices'}/${m.invoiceId}`)
      }
    >
      <MarkShape kind={m.kind} standing={m.standing} side={sideOf(m, dense)} />
    </button>
  ));
}

/** Clients as lanes, days across, today a line. */
export function Almanac({ view }: { view: Today }) {
  const { today, from, to, lanes } = view;
  const own = view.sentence.open.currency;
  const [read, setRead] = useState('');
  const dense = lanes.length > DENSE;
  const span = daysBetween(from, to);
  const at = (date: string) => `${Math.min(100, Math.max(0, (100 * daysBetween(from, date)) / span))}%`;
  const ticks = ticksOf(from, span);
  const lines = (
    <>
      {ticks.map((t) => (
        <span key={t} className={css.line} style={{ left: at(t) }} />
      ))}
      <span className={`${css.line} ${css.now}`} style={{ left: at(today) }} />
    </>
  );
  return (
    <>
      <div
        className={`almanac ${css.almanac} ${dense ? css.dense : ''}`}
        role="list"
        aria-label="Clients over time"
        onKeyDown={walk}
      >
        <div className={css.lane} aria-hidden="true">
          <span />
          <span className="days" style={{ minHeight: 28 }}>
            {ticks
              .filter((t) => Math.abs(daysBetween(t, today)) > span / 14)
              .map((t) => (
                <span key={t} className={css.date} style={{ left: at(t) }}>
                  {shortDate(t)}
                </span>
              ))}
            <b className={css.date} style={{ left: at(today), color: 'var(--ink)' }}>
              today
            </b>
          </span>
          <span />
        </div>
        {lanes.map((lane) => (
          <div className={css.lane} key={`${lane.clientId}-${lane.open.currency}`} role="listitem" data-lane>
            <span>
              <Link className={`name ${css.name}`} to={`/clients/${lane.clientId}`}>
                {lane.client}
              </Link>
            </span>
            <span className="days">
              {lines}
              {lane.marks
                .filter((m) => m.kind === 'installment' && m.standing === 'LATE')
                .map((m, i) => (
                  <span
                    key={`${m.invoiceId}-${m.on}-${i}`}
                    className={css.since}
                    style={{ left: at(m.on), right: `calc(100% - ${at(today)})` }}
                  />
                ))}
              <Marks lane={lane} dense={dense} at={at} onRead={setRead} />
            </span>
            <span className="money" style={{ justifyContent: 'flex-end' }}>
              {isZero(lane.open) ? (
                <span className="faded">–</span>
              ) : (
                <b className={isZero(lane.late) ? undefined : 'late'}>
                  {lane.open.currency === own ? plain(lane.open) : money(lane.open)}
                </b>
              )}
            </span>
          </div>
        ))}
      </div>
      {view.hidden > 0 && (
        <p className="faded small">
          {view.hidden} more {view.hidden === 1 ? 'client' : 'clients'} with less at stake:{' '}
          <Link to="/clients">all clients</Link>
        </p>
      )}
      <p className={`reading ${css.reading}`} aria-hidden="true">
        {read}
      </p>
      <Legend />
    </>
  );
}

function Legend() {
  const kinds = [
    ['installment', 'SETTLED', 'paid'],
    ['installment', 'COMING', 'to come'],
    ['installment', 'LATE', 'late'],
    ['reminder', 'SETTLED', 'reminder (green: to come)'],
    ['fee', 'LATE', 'late fee (hollow: to come)'],
    ['milestone', 'COMING', 'no day yet'],
    ['quote', 'COMING', 'quote runs out'],
    ['asked', 'COMING', 'asked for, not come'],
  ] as const;
  return (
    <div className={css.legend}>
      {kinds.map(([kind, standing, words]) => (
        <span key={words}>
          <MarkShape kind={kind} standing={standing} side={13} /> {words}
        </span>
      ))}
      <span>sized by amount</span>
    </div>
  );
}
