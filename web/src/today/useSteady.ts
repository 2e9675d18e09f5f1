import { type RefObject, useEffect, useRef, useState } from 'react';

/**
 * Keeps a list as it is while somebody points at it or walks through it by keyboard: what has gone stays as a row that
 * says so, what has come waits, so that nothing moves under the pointer. Once it is left it shows what is so now.
 */
export function useSteady<T>(
  items: T[],
  keyOf: (item: T) => string,
): { ref: RefObject<HTMLElement | null>; rows: { item: T; gone: boolean }[] } {
  const ref = useRef<HTMLElement | null>(null);
  const [held, setHeld] = useState<T[] | null>(null);
  const latest = useRef(items);
  useEffect(() => {
    latest.current = items;
  }, [items]);
  useEffect(() => {
    const list = ref.current;
    if (!list) return;
    const hold = () => setHeld((before) => before ?? latest.current);
    const isIn = (target: EventTarget | null) =>
      target instanceof Element && (list.contains(target) || target.closest('[role=dialog]') !== null);
    const leave = (event: Event) => {
      if (!isIn(event.target)) setHeld(null);
    };
    const away = (event: PointerEvent) => {
      // A finger that is lifted has not left; a dialog that was opened from here belongs to it.
      if (event.pointerType === 'mouse' && !isIn(document.activeElement) && !isIn(event.relatedTarget))
        setHeld(null);
    };
    list.addEventListener('pointerenter', hold);
    list.addEventListener('focusin', hold);
    list.addEventListener('pointerleave', away);
    document.addEventListener('pointerdown', leave, true);
    document.addEventListener('focusin', leave);
    return () => {
      list.removeEventListener('pointerenter', hold);
      list.removeEventListener('focusin', hold);
      list.removeEventListener('pointerleave', away);
      document.removeEventListener('pointerdown', leave, true);
      document.removeEventListener('focusin', leave);
    };
  }, []);
  if (held === null) return { ref, rows: items.map((item) => ({ item, gone: false })) };
  const now = new Map(items.map((item) => [keyOf(item), item]));
  return {
    ref,
    rows: held.map((before) => {
      const item = now.get(keyOf(before));
      return { item: item ?? before, gone: item === undefined };
    }),
  };
}
