import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../api/client';
import { daysBetween, isZero, longDate, money, plain, shortDate } from '../design/format';

type Mark = Schemas['Mark'];

/** Sized by amount: the area grows with it. For drawing only. */
function sideOf(mark: Mark): number {
  return Math.round(9 + 19 * Math.sqrt(Math.min(1000, mark.size) / 1000));
}

function reading(client: string, m: Mark): string {
  const how =
    m.standing === 'LATE'
      ? `was due ${longDate(m.on)}, ${m.daysLate} ${m.daysLate === 1 ? 'day' : 'days'} late`
      : m.standing === 'SETTLED'
        ? `fell due ${longDate(m.on)}, paid`
        : `falls due ${longDate(m.on)}`;
  return `${client}: ${money(m.amount)} of ${m.number} ${how}${m.what ? ` · ${m.what}` : ''}`;
}

export function MarkShape({ standing, side }: { standing: Mark['standing']; side: number }) {
  const edge = 1.5;
  if (standing === 'LATE') {
    const r = side - edge;
    const teeth = [0.2, 0.4, 0.6, 0.8, 1].map(
      (t, i) => `L${i % 2 ? r : r - 4} ${edge + (side - 2 * edge) * t}`,
    );
    return (
      <svg width={side} height={side} aria-hidden="true">
        <path
          d={`M${edge} ${edge} H${r} ${teeth.join(' ')} H${edge} Z`}
          fill="var(--late-wash)"
          stroke="var(--late)"
          strokeWidth={1.5}
        />
      </svg>
    );
  }
  return (
    <svg width={side} height={side} aria-hidden="true">
      <rect
        x={edge}
        y={edge}
        width={side - 2 * edge}
        height={side - 2 * edge}
        fill={standing === 'SETTLED' ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    </svg>
  );
}

/** Clients as lanes, days across, today a line. */
export function Almanac({
  today,
  from,
  to,
  lanes,
}: {
  today: string;
  from: string;
  to: string;
  lanes: Schemas['Lane'][];
}) {
  const navigate = useNavigate();
  const [read, setRead] = useState('');
  const span = daysBetween(from, to);
  const at = (date: string) => `${Math.min(100, Math.max(0, (100 * daysBetween(from, date)) / span))}%`;
  const ticks = Array.from({ length: Math.floor(span / 14) + 1 }, (_, i) => {
    const date = new Date(`${from}T00:00:00Z`);
    date.setUTCDate(date.getUTCDate() + 14 * i);
    return date.toISOString().slice(0, 10);
  });
  const lines = (
    <>
      {ticks.map((t) => (
        <span key={t} className="line" style={{ left: at(t) }} />
      ))}
      <span className="line now" style={{ left: at(today) }} />
    </>
  );
  return (
    <>
      <div className="almanac" role="list" aria-label="Clients over time">
        <div className="lane" aria-hidden="true">
          <span />
          <span className="days" style={{ minHeight: 28 }}>
            {ticks
              .filter((t) => Math.abs(daysBetween(t, today)) > 6)
              .map((t) => (
                <span key={t} className="date" style={{ left: at(t) }}>
                  {shortDate(t)}
                </span>
              ))}
            <b className="date" style={{ left: at(today), color: 'var(--ink)' }}>
              today
            </b>
          </span>
          <span />
        </div>
        {lanes.map((lane) => (
          <div className="lane" key={lane.clientId} role="listitem">
            <span>
              <Link className="name" to={`/clients/${lane.clientId}`}>
                {lane.client}
              </Link>
            </span>
            <span className="days">
              {lines}
              {lane.marks.map((m, i) => (
                <button
                  key={`${m.invoiceId}-${m.on}-${i}`}
                  type="button"
                  className="mark"
                  style={{ left: at(m.on) }}
                  aria-label={reading(lane.client, m)}
                  onMouseEnter={() => setRead(reading(lane.client, m))}
                  onFocus={() => setRead(reading(lane.client, m))}
                  onClick={() => void navigate(`/invoices/${m.invoiceId}`)}
                >
                  <MarkShape standing={m.standing} side={sideOf(m)} />
                </button>
              ))}
            </span>
            <span className="money" style={{ justifyContent: 'flex-end' }}>
              {isZero(lane.open) ? (
                <span className="faded">–</span>
              ) : (
                <b className={isZero(lane.late) ? undefined : 'late'}>{plain(lane.open)}</b>
              )}
            </span>
          </div>
        ))}
      </div>
      <p className="reading" aria-hidden="true">
        {read}
      </p>
      <div className="legend">
        <span>
          <MarkShape standing="SETTLED" side={13} /> paid
        </span>
        <span>
          <MarkShape standing="COMING" side={13} /> to come
        </span>
        <span>
          <MarkShape standing="LATE" side={13} /> late
        </span>
        <span>sized by amount</span>
      </div>
    </>
  );
}
