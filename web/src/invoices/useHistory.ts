import { useCallback, useMemo, useRef, useState } from 'react';

const MOST = 300;
/** So long a pause while typing ends what one step back takes away. */
const PAUSE = 1000;

/** A value with every step that led to it: one goes back and forth among them. */
export function useHistory<T>(begin: T) {
  const [now, setNow] = useState(begin);
  const latest = useRef(begin);
  const past = useRef<T[]>([]);
  const future = useRef<T[]>([]);
  const last = useRef({ what: '', at: 0 });

  const put = useCallback((next: T) => {
    latest.current = next;
    setNow(next);
  }, []);

  const change = useCallback(
    (edit: (before: T) => T, what = '') => {
      const next = edit(latest.current);
      if (next === latest.current) return;
      const at = Date.now();
      const goesOn = what !== '' && what === last.current.what && at - last.current.at < PAUSE;
      if (!goesOn) past.current = [...past.current.slice(-MOST), latest.current];
      last.current = { what, at };
      future.current = [];
      put(next);
    },
    [put],
  );

  const step = useCallback(
    (from: React.RefObject<T[]>, to: React.RefObject<T[]>) => {
      const next = from.current.at(-1);
      if (next === undefined) return false;
      from.current = from.current.slice(0, -1);
      to.current = [...to.current, latest.current];
      last.current = { what: '', at: 0 };
      put(next);
      return true;
    },
    [put],
  );
  const undo = useCallback(() => step(past, future), [step]);
  const redo = useCallback(() => step(future, past), [step]);

  return useMemo(() => ({ now, latest, change, undo, redo }), [now, change, undo, redo]);
}
