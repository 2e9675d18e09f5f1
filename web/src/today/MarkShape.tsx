import type { Schemas } from '../api/client';

type Standing = Schemas['Mark']['standing'];

/** A mark of the Almanac: a square for an installment (broken where it has no day yet), an open letter for a
 * reminder, a stroke for a fee, a marker for a quote that runs out, a coin for what was asked for and did not come. */
export function MarkShape({ kind, standing, side }: { kind: string; standing: Standing; side: number }) {
  const edge = 1.5;
  if (kind === 'reminder') {
    const colour = standing === 'COMING' ? 'var(--act)' : 'var(--faded)';
    return (
      <svg width={14} height={9} aria-hidden="true">
        <path d="M1 2 L7 7 L13 2" fill="none" stroke={colour} strokeWidth={2} />
      </svg>
    );
  }
  if (kind === 'fee') {
    const toCome = standing === 'COMING';
    return (
      <svg width={6} height={12} aria-hidden="true">
        <rect
          x={1}
          y={1}
          width={4}
          height={10}
          fill={toCome ? 'none' : standing === 'SETTLED' ? 'var(--ink)' : 'var(--late)'}
          stroke={standing === 'SETTLED' ? 'var(--ink)' : 'var(--late)'}
        />
      </svg>
    );
  }
  if (kind === 'milestone')
    return (
      <svg width={13} height={13} aria-hidden="true">
        <rect
          x={edge}
          y={edge}
          width={10}
          height={10}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
          strokeDasharray="2 2"
        />
      </svg>
    );
  if (kind === 'quote')
    return (
      <svg width={12} height={14} aria-hidden="true">
        <path d="M2 1 H10 V13 L6 9.5 L2 13 Z" fill="none" stroke="var(--faded)" strokeWidth={1.5} />
      </svg>
    );
  if (kind === 'asked')
    return (
      <svg width={13} height={13} aria-hidden="true">
        <circle cx={6.5} cy={6.5} r={5} fill="none" stroke="var(--act)" strokeWidth={1.5} />
        <path d="M6.5 3.5 V9.5" stroke="var(--act)" strokeWidth={1.5} />
      </svg>
    );
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
