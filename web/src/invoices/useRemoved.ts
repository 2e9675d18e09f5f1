import { useCallback, useEffect, useRef, useState } from 'react';
import type { Change, Removed } from './fields';
import type { Typed } from './useDraft';

/** What was taken off the sheet last: a key or a click brings it back, until something else is typed. */
export function useRemoved(typed: Typed, change: Change) {
  const [last, setLast] = useState<{ words: string; back: (now: Typed) => Typed } | null>(null);
  const at = useRef<Typed | null>(null);
  const fresh = useRef(false);
  const note: Removed = useCallback((words, back) => {
    fresh.current = true;
    setLast({ words, back });
  }, []);
  useEffect(() => {
    if (fresh.current) {
      at.current = typed;
      fresh.current = false;
    } else if (at.current !== typed) {
      setLast(null);
    }
  }, [typed]);
  const back = useCallback(() => {
    if (last) change(last.back);
    setLast(null);
  }, [last, change]);
  useEffect(() => {
    if (!last) return;
    const key = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey) return;
      event.preventDefault();
      back();
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, [last, back]);
  return { words: last?.words ?? '', note, back };
}
