import { type KeyboardEvent, type RefObject, useRef } from 'react';
import { useNavigate } from 'react-router';

/** An index leaf that arrow keys turn through; where a record is open, the next one is opened. */
export function useTurning(current: number | string | null): {
  leaf: RefObject<HTMLDivElement | null>;
  turn: (event: KeyboardEvent) => void;
} {
  const navigate = useNavigate();
  const leaf = useRef<HTMLDivElement>(null);
  const turn = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const rows = [...(leaf.current?.querySelectorAll<HTMLAnchorElement>('[data-row]') ?? [])];
    const here = rows.findIndex((r) => r === document.activeElement || r.getAttribute('aria-current'));
    const next = rows[here + (event.key === 'ArrowDown' ? 1 : -1)];
    if (!next) return;
    event.preventDefault();
    next.focus();
    if (current !== null) void navigate(next.pathname + next.search);
  };
  return { leaf, turn };
}
