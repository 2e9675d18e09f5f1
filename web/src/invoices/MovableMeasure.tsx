import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { plain } from '../design/format';
import { GAP, MeasureBar, type Part } from '../design/Measure';
import css from './MovableMeasure.module.css';

/** One step of the arrow keys, and of the page keys, in thousandths of the whole. */
const STEP = 10;
const LEAP = 100;

/** The Measure of a schedule that is being written: its divisions are dragged, or moved by the arrow keys. */
export function MovableMeasure({
  parts,
  onDivide,
  onEqual,
}: {
  parts: Part[];
  /** @param place of the installment before the division @param thousandths where it shall stand */
  onDivide: (place: number, thousandths: number) => void;
  onEqual: () => void;
}) {
  const bar = useRef<HTMLDivElement>(null);
  const [moving, setMoving] = useState<{ place: number; at: number } | null>(null);
  const whole = parts.reduce((sum, p) => sum + p.weight, 0) || 1;
  // Between the drawn parts there are gaps: a handle stands in the middle of its own.
  const room = 1000 - GAP * (parts.length - 1);
  const drawn = (edge: number, place: number) => (edge * room) / 1000 + GAP * (place + 0.5);
  let sum = 0;
  const edges = parts.slice(0, -1).map((p) => {
    sum += p.weight;
    return Math.round((1000 * sum) / whole);
  });
  const at = (event: PointerEvent, place: number) => {
    const box = bar.current?.getBoundingClientRect();
    if (!box) return 0;
    const x = (1000 * (event.clientX - box.left)) / box.width - GAP * (place + 0.5);
    return Math.max(1, Math.min(999, Math.round((1000 * x) / room)));
  };
  const keys = (event: KeyboardEvent, place: number, edge: number) => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP, PageDown: -LEAP, PageUp: LEAP }[event.key];
    if (event.key === '=') onEqual();
    else if (by) onDivide(place, edge + by);
    else return;
    event.preventDefault();
  };
  return (
    <div className={`${css.bar} ${parts.length > 8 ? css.many : ''}`} ref={bar}>
      <MeasureBar parts={parts} height={20} />
      {edges.map((edge, place) => {
        const now = moving?.place === place ? moving.at : edge;
        const [before, after] = [parts[place], parts[place + 1]];
        return (
          <span
            key={place}
            className={css.handle}
            role="slider"
            tabIndex={0}
            aria-label={`Division after installment ${place + 1}; = makes all equal`}
            aria-valuemin={0}
            aria-valuemax={1000}
            aria-valuenow={now}
            aria-valuetext={before && after ? `${plain(before.amount)} and ${plain(after.amount)}` : ''}
            style={{ left: `${drawn(now, place) / 10}%` }}
            onKeyDown={(e) => keys(e, place, edge)}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              setMoving({ place, at: edge });
            }}
            onPointerMove={(e) => moving && setMoving({ place, at: at(e, place) })}
            onPointerUp={() => {
              if (moving && moving.at !== edge) onDivide(place, moving.at);
              setMoving(null);
            }}
            onPointerCancel={() => setMoving(null)}
          />
        );
      })}
    </div>
  );
}
