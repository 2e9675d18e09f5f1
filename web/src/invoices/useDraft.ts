import { useCallback, useEffect, useRef, useState } from 'react';
import { api, ApiError, data, messageOf, type Problem, type Schemas } from '../api/client';

export type Typed = Schemas['TypedDraft'];
export type Line = Schemas['TypedLine'];
export type Term = Schemas['TypedTerm'];

const RECKON_AFTER = 120;
const KEEP_AFTER = 600;

export type Keeping = { state: 'empty' | 'kept' | 'typing' | 'failed' | 'conflict'; text: string };

/** A draft while it is written: reckoned by the server as one types, kept by itself, never overwriting another's. */
export function useDraft(draft: Schemas['DraftView'] | null, blank: Typed, onBegun: (id: number) => void) {
  const [typed, setTyped] = useState<Typed>(draft?.typed ?? blank);
  const [reckoning, setReckoning] = useState<Schemas['Reckoning'] | null>(draft?.reckoning ?? null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [keeping, setKeeping] = useState<Keeping>({ state: draft ? 'kept' : 'empty', text: '' });
  const id = useRef<number | null>(draft?.id ?? null);
  const version = useRef(draft?.version ?? 0);
  const latest = useRef(typed);
  const dirty = useRef(false);
  const running = useRef<Promise<boolean> | null>(null);

  const keepOnce = useCallback(async (): Promise<boolean> => {
    const sent = latest.current;
    try {
      let kept: Schemas['Kept'];
      if (id.current === null) {
        kept = await data(api.POST('/api/invoices', { body: sent }));
        id.current = kept.id;
        version.current = kept.version;
        onBegun(kept.id);
      } else {
        kept = await data(
          api.PUT('/api/invoices/{id}', {
            params: { path: { id: id.current } },
            body: { version: version.current, typed: sent },
          }),
        );
        version.current = kept.version;
      }
      if (latest.current === sent) dirty.current = false;
      setKeeping({ state: dirty.current ? 'typing' : 'kept', text: `Kept at ${kept.at}` });
      return true;
    } catch (error) {
      const conflict = error instanceof ApiError && error.status === 409;
      setKeeping({ state: conflict ? 'conflict' : 'failed', text: messageOf(error) });
      return false;
    }
  }, [onBegun]);

  /** Keeps what is typed now; one request after the other. */
  const keep = useCallback(async (): Promise<boolean> => {
    while (running.current) await running.current;
    if (!dirty.current) return true;
    running.current = keepOnce();
    const done = await running.current;
    running.current = null;
    return done;
  }, [keepOnce]);

  /** After a conflict: what stands here wins over the other window. */
  const keepMine = useCallback(async () => {
    if (id.current === null) return;
    const other = await data(api.GET('/api/invoices/{id}', { params: { path: { id: id.current } } }));
    version.current = other.version;
    dirty.current = true;
    await keep();
  }, [keep]);

  const change = useCallback((edit: (before: Typed) => Typed) => {
    const next = edit(latest.current);
    latest.current = next;
    dirty.current = true;
    setTyped(next);
    setProblems([]);
    setKeeping((k) => (k.state === 'conflict' ? k : { state: 'typing', text: 'Typing…' }));
  }, []);

  const reckonNow = useRef(0);
  useEffect(() => {
    const mine = ++reckonNow.current;
    const timer = window.setTimeout(() => {
      void data(api.POST('/api/reckonings', { body: typed })).then(
        (answer) => mine === reckonNow.current && setReckoning(answer),
        () => undefined,
      );
    }, RECKON_AFTER);
    return () => window.clearTimeout(timer);
  }, [typed]);

  useEffect(() => {
    if (!dirty.current || keeping.state === 'conflict') return;
    const wait = keeping.state === 'failed' ? 3000 : KEEP_AFTER;
    const timer = window.setTimeout(() => {
      void keep();
    }, wait);
    return () => window.clearTimeout(timer);
  }, [typed, keeping, keep]);

  // Leaving the place, or the page, keeps what was typed last.
  useEffect(() => {
    const leave = () => void keep();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [keep]);

  return { typed, change, reckoning, problems, setProblems, keeping, keep, keepMine, id, version };
}
