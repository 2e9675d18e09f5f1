import { useCallback, useEffect, useRef, useState } from 'react';
import { api, ApiError, data, messageOf, type Problem, type Schemas } from '../api/client';
import { useHistory } from './useHistory';
import type { Desk } from './desk';
import { forget, remember, type Remembered } from './remembered';

export type Typed = Schemas['TypedDraft'];
export type Line = Schemas['TypedLine'];
export type Term = Schemas['TypedTerm'];

const RECKON_AFTER = 120;
const KEEP_AFTER = 600;
const AGAIN_AFTER = 3000;
/** As much as a browser sends on while its page goes away. */
const MOST_WHILE_LEAVING = 60_000;

export type Keeping = { state: 'empty' | 'kept' | 'typing' | 'failed' | 'conflict'; text: string };

/** What another window kept meanwhile. @param theirs null where the draft is none any more */
export type Other = { theirs: Typed | null; version: number };

/**
 * A draft while it is written: reckoned by the server as one types, kept by itself, never overwriting another's. What
 * the server has not got yet is remembered in the browser, so that neither a lost line nor a closed window loses it.
 */
export function useDraft(
  draft: Schemas['DraftView'] | null,
  blank: Typed,
  remembered: Remembered | null,
  desk: Desk,
  onBegun: (id: number) => void,
) {
  // A copy of before another window's changes stands here too; both texts are shown.
  const restored = remembered !== null && remembered.version === (draft?.version ?? 0);
  const history = useHistory<Typed>(remembered?.typed ?? draft?.typed ?? blank);
  const { now: typed, latest } = history;
  const [reckoning, setReckoning] = useState<Schemas['Reckoning'] | null>(draft?.reckoning ?? null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [keeping, setKeeping] = useState<Keeping>(
    restored
      ? { state: 'typing', text: 'What was typed before this window closed is back.' }
      : { state: draft ? 'kept' : 'empty', text: '' },
  );
  const [other, setOther] = useState<Other | null>(
    remembered !== null && !restored && draft ? { theirs: draft.typed, version: draft.version } : null,
  );
  const id = useRef<number | null>(draft?.id ?? null);
  const version = useRef(draft?.version ?? 0);
  const dirty = useRef(restored);
  const running = useRef<Promise<boolean> | null>(null);

  const meetOther = useCallback(async () => {
    if (id.current === null) return;
    setOther(await desk.other(id.current));
  }, [desk]);

  const keepOnce = useCallback(
    async (leaving: boolean): Promise<boolean> => {
      const sent = latest.current;
      const before = id.current;
      const keepalive = leaving && JSON.stringify(sent).length < MOST_WHILE_LEAVING;
      try {
        let kept: Schemas['Kept'];
        if (id.current === null) {
          kept = await desk.begin(sent, keepalive);
          id.current = kept.id;
          version.current = kept.version;
          onBegun(kept.id);
        } else {
          kept = await desk.keep(id.current, version.current, sent, keepalive);
          version.current = kept.version;
        }
        forget(before ?? `new-${desk.kind}`);
        if (latest.current === sent) dirty.current = false;
        else remember(id.current, version.current, latest.current);
        setKeeping({ state: dirty.current ? 'typing' : 'kept', text: `Kept at ${kept.at}` });
        return true;
      } catch (error) {
        const conflict = error instanceof ApiError && error.status === 409;
        setKeeping({ state: conflict ? 'conflict' : 'failed', text: messageOf(error) });
        if (conflict) void meetOther().catch(() => undefined);
        return false;
      }
    },
    [onBegun, meetOther, latest, desk],
  );

  /** Keeps what is typed now; one request after the other. */
  const keep = useCallback(
    async (leaving = false): Promise<boolean> => {
      while (running.current) await running.current;
      if (!dirty.current) return true;
      running.current = keepOnce(leaving);
      const done = await running.current;
      running.current = null;
      return done;
    },
    [keepOnce],
  );

  const touched = useCallback(() => {
    dirty.current = true;
    remember(id.current ?? `new-${desk.kind}`, version.current, latest.current);
    setProblems([]);
    setKeeping((k) => (k.state === 'conflict' ? k : { state: 'typing', text: 'Typing…' }));
  }, [latest, desk]);

  /** After a conflict: what stands here wins over the other window. */
  const keepMine = useCallback(async () => {
    if (!other?.theirs) return;
    version.current = other.version;
    setOther(null);
    dirty.current = true;
    await keep();
  }, [keep, other]);

  /** After a conflict: the other's text stands here; undoing brings one's own back. */
  const takeTheirs = useCallback(() => {
    if (!other?.theirs) return;
    forget(id.current ?? `new-${desk.kind}`);
    version.current = other.version;
    history.change(() => other.theirs as Typed);
    dirty.current = false;
    setOther(null);
    setKeeping({ state: 'kept', text: 'The other window’s text. Undo brings yours back.' });
  }, [other, history, desk]);

  /** @param what which field is typed into: one step back takes what was typed into it in one go */
  const change = useCallback(
    (edit: (before: Typed) => Typed, what?: string) => {
      history.change(edit, what);
      touched();
    },
    [history, touched],
  );
  const undo = useCallback(() => history.undo() && touched(), [history, touched]);
  const redo = useCallback(() => history.redo() && touched(), [history, touched]);

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
    if (!dirty.current || keeping.state === 'conflict' || other) return;
    const timer = window.setTimeout(() => void keep(), keeping.state === 'failed' ? AGAIN_AFTER : KEEP_AFTER);
    return () => window.clearTimeout(timer);
  }, [typed, keeping, keep, other]);

  // Leaving the place, or the page, keeps what was typed last.
  useEffect(() => {
    // A new one that the browser remembers is not begun on the way out: its answer would find nobody, and the draft
    // would stand there twice.
    const leave = () => void (id.current !== null && keep(true));
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      void keep();
    };
  }, [keep]);

  return {
    typed,
    /** The same, also between a change and the next drawing. */
    latest,
    change,
    undo,
    redo,
    reckoning,
    problems,
    setProblems,
    keeping,
    keep,
    other,
    keepMine,
    takeTheirs,
    id,
    version,
  };
}
