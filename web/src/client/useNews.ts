import { useEffect } from 'react';

/**
 * Hears that a client's document has changed. What changed between the first look and the moment the line is up was told
 * to nobody, and so may what changed while it was broken: each time it is up, the page looks again.
 */
export function useNews(token: string, on: boolean, heard: () => void) {
  useEffect(() => {
    if (!on) return;
    const source = new EventSource(`/api/public/${token}/events`);
    source.addEventListener('ready', heard);
    source.addEventListener('changed', heard);
    return () => source.close();
  }, [token, on, heard]);
}
