import { useEffect, useRef } from 'react';

/** For what says that something was just done: whoever did it, and hears or tabs through the page, is taken there. */
export function useSaid(said: string) {
  const place = useRef<HTMLParagraphElement>(null);
  const before = useRef(said);
  useEffect(() => {
    if (before.current === said) return;
    before.current = said;
    place.current?.focus();
  }, [said]);
  return place;
}
