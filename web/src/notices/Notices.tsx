import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { notices } from '../api/business';
import { tell } from '../design/tell';

/** Says on every open page what has just happened; what was there before is told nowhere. */
export function Notices() {
  const latest = useQuery(notices);
  const seen = useRef<number | null>(null);
  const all = latest.data;
  useEffect(() => {
    if (!all) return;
    const before = seen.current;
    seen.current = all[0]?.id ?? 0;
    if (before === null) return;
    for (const n of [...all].reverse()) if (n.id > before) tell(n.text, { autoClose: 12_000 });
  }, [all]);
  return null;
}
