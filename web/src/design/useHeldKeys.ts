import { type KeyboardEvent, useEffect, useRef } from 'react';

/**
 * Keys pressed before the answer to what was typed is there count once it is: what an older answer offers is never
 * chosen. Whatever is typed meanwhile takes them back.
 *
 * @param fresh whether what is offered answers what is typed
 * @param act what the held keys do
 */
export function useHeldKeys(fresh: boolean, act: (keys: string[]) => void) {
  const held = useRef<string[]>([]);
  useEffect(() => {
    if (!fresh || held.current.length === 0) return;
    const keys = held.current;
    held.current = [];
    act(keys);
  });
  return {
    /** Whether the key is held; it does nothing else then. */
    hold: (event: KeyboardEvent, holds: (key: string, before: string[]) => boolean): boolean => {
      if (fresh || event.ctrlKey || event.metaKey || event.altKey) return false;
      if (!holds(event.key, held.current)) {
        held.current = [];
        return false;
      }
      event.preventDefault();
      event.stopPropagation();
      held.current.push(event.key);
      return true;
    },
  };
}
