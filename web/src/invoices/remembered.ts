import type { Schemas } from '../api/client';

/** What was typed and not kept yet, in this browser. @param version of the draft on which it was typed; 0 for a new one */
export interface Remembered {
  version: number;
  typed: Schemas['TypedDraft'];
}

const PREFIX = 'quill-draft-';
/** A draft by its number, or the new one of a kind. */
export type Which = number | `new-${string}`;

const keyOf = (which: Which) => `${PREFIX}${which}`;

/** Remembers it at once: no line is needed, and a window may close the moment after. */
export function remember(which: Which, version: number, typed: Schemas['TypedDraft']) {
  try {
    localStorage.setItem(keyOf(which), JSON.stringify({ version, typed }));
  } catch {
    // The browser has no room, or allows none; what is typed is kept by the server a moment later.
  }
}

/** The server has it, or it is wanted no more. */
export function forget(which: Which) {
  try {
    localStorage.removeItem(keyOf(which));
  } catch {
    // As above.
  }
}

/** What was left behind, if anything; unreadable things are nothing. */
export function rememberedOf(which: Which): Remembered | null {
  try {
    const text = localStorage.getItem(keyOf(which));
    const found = text === null ? null : (JSON.parse(text) as Remembered);
    return found && Array.isArray(found.typed?.lines) ? found : null;
  } catch {
    return null;
  }
}

/** Whoever signs out leaves nothing behind on this machine. */
export function forgetAll() {
  try {
    for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
  } catch {
    // As above.
  }
}
