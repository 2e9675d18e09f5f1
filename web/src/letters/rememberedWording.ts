import type { LetterKind } from '../api/letters';

/** What was typed into a letter and is not used yet, in this browser. @param version on which it was typed */
interface Wording {
  version: number;
  subject: string;
  body: string;
}

/** Begins as drafts do, so that whoever signs out leaves nothing behind. */
const keyOf = (kind: LetterKind, payer: boolean) => `quill-draft-letter-${kind}${payer ? '-payer' : ''}`;

export function rememberWording(kind: LetterKind, payer: boolean, wording: Wording) {
  try {
    localStorage.setItem(keyOf(kind, payer), JSON.stringify(wording));
  } catch {
    // No room, or not allowed: it stands in the window until it is used.
  }
}

export function forgetWording(kind: LetterKind, payer: boolean) {
  try {
    localStorage.removeItem(keyOf(kind, payer));
  } catch {
    // As above.
  }
}

/** What was left behind, on whatever version it was typed. */
export function wordingOf(kind: LetterKind, payer: boolean): Wording | null {
  try {
    const text = localStorage.getItem(keyOf(kind, payer));
    const found = text === null ? null : (JSON.parse(text) as Wording);
    return found && typeof found.subject === 'string' && typeof found.body === 'string' ? found : null;
  } catch {
    return null;
  }
}
