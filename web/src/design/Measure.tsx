import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { isZero, longDate, plain, shortDate } from './format';
import css from './Measure.module.css';

export type Part = Pick<Schemas['Part'], 'position' | 'amount' | 'dueOn' | 'weight'> &
  Partial<
    Pick<Schemas['Part'], 'id' | 'filled' | 'standing' | 'settledOn' | 'daysLate' | 'open' | 'kind' | 'note'>
  >;

/** So many parts have room for their figures under the bar; more are told as a list. */
const MOST_APART = 6;

/** What a part that has no day waits for; its note says it. */
const waits = (part: Part) => part.note || 'no date yet';

/** When a part is due, or for what it waits. */
export const dueOf = (part: Part) => (part.dueOn ? `due ${shortDate(part.dueOn)}` : waits(part));

const isFee = (p: Part) => p.kind === 'LATE_FEE';

/** Between two parts, of the 1000 units that the bar is wide. */
export const GAP = 8;

/** A fee's tick, with the room before it. */
const TICK = 16;

/** How deep the torn edge goes, of the 1000 units that the bar is wide. */
const TEAR = 11;

/** A torn edge at the right of a late part. */
function torn(x: number, width: number, height: number): string {
  const right = x + width;
  const teeth = 3;
  let path = `M${x} 0.5 H${right}`;
  for (let i = 1; i <= teeth * 2; i++)
    path += ` L${right - (i % 2 ? TEAR : 0)} ${(height * i) / (teeth * 2)}`;
  return `${path} H${x} Z`;
}

/** The bar alone: parts as wide as their amounts. The figures always stand beside it in words. */
export function MeasureBar({ parts: all, height = 6 }: { parts: Part[]; height?: number }) {
  const parts = all.filter((p) => !isFee(p));
  const fees = all.filter((p) => isFee(p));
  const width = 1000;
  const gap = GAP;
  const whole = parts.reduce((sum, p) => sum + p.weight, 0) || 1;
  const room = width - gap * (parts.length - 1) - TICK * fees.length;
  let x = 0;
  return (
    <svg
      className={`measure ${css.measure}`}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      width="100%"
      height={height}
      aria-hidden="true"
    >
      {parts.map((p) => {
        const w = (room * p.weight) / whole;
        const left = x;
        x += w + gap;
        const late = p.standing === 'LATE';
        return (
          <g key={p.position}>
            {late ? (
              <path
                d={torn(left, w, height)}
                fill="var(--late-wash)"
                stroke="var(--late)"
                vectorEffect="non-scaling-stroke"
              />
            ) : (
              <rect
                x={left + 1}
                y={0.5}
                width={w - 2}
                height={height - 1}
                fill="var(--sheet)"
                stroke="var(--ink)"
                strokeDasharray={p.dueOn ? undefined : '3 3'}
                vectorEffect="non-scaling-stroke"
              />
            )}
            {(p.filled ?? 0) > 0 && (
              <rect x={left} y={0} width={(w * (p.filled ?? 0)) / 1000} height={height} fill="var(--ink)" />
            )}
            {(p.standing === 'CREDITED' || p.standing === 'WRITTEN_OFF') && (
              <line
                x1={left}
                x2={left + w}
                y1={height / 2}
                y2={height / 2}
                stroke="var(--faded)"
                vectorEffect="non-scaling-stroke"
              />
            )}
          </g>
        );
      })}
      {fees.map((f, i) => (
        <rect
          key={f.position}
          x={width - TICK * (fees.length - i) + 8}
          y={0}
          width={7}
          height={height}
          fill={f.standing === 'LATE' || f.standing === 'COMING' ? 'var(--late)' : 'var(--faded)'}
        />
      ))}
    </svg>
  );
}

/** How one part stands, in words. @param forClient who is not told that something was given up */
export function standingOf(part: Part, forClient = false): string {
  if (part.standing === 'WRITTEN_OFF') return forClient ? 'nothing more to pay' : 'written off';
  if (isFee(part))
    return part.standing === 'SETTLED'
      ? 'paid'
      : part.standing === 'CREDITED'
        ? 'waived'
        : `charged ${shortDate(part.dueOn ?? '')}`;
  switch (part.standing) {
    case 'SETTLED':
      return part.settledOn ? `paid ${shortDate(part.settledOn)}` : 'paid';
    case 'CREDITED':
      return 'taken back';
    case 'LATE':
      return `${dueOf(part)}, ${part.daysLate} ${part.daysLate === 1 ? 'day' : 'days'} late`;
    default:
      return dueOf(part);
  }
}

interface Shown {
  /** How a part's amount is shown, where more than the figure is wanted. */
  figure?: ((part: Part) => ReactNode) | undefined;
  /** Whether its client looks at it. */
  forClient?: boolean | undefined;
}

/** A part in words: its amount, and how it stands. */
function PartWords({ part: p, figure, forClient }: { part: Part } & Shown) {
  return (
    <>
      <b className="money">{figure ? figure(p) : plain(p.amount)}</b>
      <span className={p.standing === 'LATE' ? 'late' : undefined}>
        {p.kind === 'DEPOSIT' ? 'deposit, ' : isFee(p) ? 'late fee, ' : ''}
        {standingOf(p, forClient)}
        {p.open && !isZero(p.open) && (p.filled ?? 0) > 0 ? `, ${plain(p.open)} open` : ''}
      </span>
    </>
  );
}

/** Many parts: the first and the last stand under the bar, all of them in a list that opens. */
function ManyParts({ parts, ...shown }: { parts: Part[] } & Shown) {
  const ends = [parts[0], parts.at(-1)].filter((p) => p !== undefined);
  return (
    <>
      <figcaption className={css.ends}>
        {ends.map((p) => (
          <span key={p.position}>
            <PartWords part={p} {...shown} />
          </span>
        ))}
      </figcaption>
      <details className={css.all}>
        <summary>All {parts.length}</summary>
        <ol>
          {parts.map((p) => (
            <li key={p.position}>
              <PartWords part={p} {...shown} />
            </li>
          ))}
        </ol>
      </details>
    </>
  );
}

/** The large Measure: the bar, and under each part its amount and date. */
export function MeasureFigure({
  parts,
  bar,
  ...shown
}: {
  parts: Part[];
  /** What stands in the place of the bar, where it can be moved. */
  bar?: ReactNode;
} & Shown) {
  return (
    <figure className={`measure-large ${css.measureLarge}`}>
      {bar ?? <MeasureBar parts={parts} height={20} />}
      {parts.length > MOST_APART ? (
        <ManyParts parts={parts} {...shown} />
      ) : (
        <figcaption>
          {parts.map((p) => (
            <span
              key={p.position}
              style={{ flex: isFee(p) ? '0 1 90px' : `${p.weight} 1 90px` }}
              title={p.dueOn ? longDate(p.dueOn) : waits(p)}
            >
              <PartWords part={p} {...shown} />
            </span>
          ))}
        </figcaption>
      )}
    </figure>
  );
}
