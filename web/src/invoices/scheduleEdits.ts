import { api, data, type Schemas } from '../api/client';
import type { Typed } from './useDraft';

export type Edited = Schemas['Edited'];
export type Edit = Pick<Schemas['Edit'], 'kind'> &
  Partial<Pick<Schemas['Edit'], 'place' | 'share' | 'thousandths'>>;

const nothing = { draft: null, of: null, schedule: null, place: 0, share: '', thousandths: 0 };

/** What a draft's schedule would become; the server says it, and nothing is taken yet. */
export const editedDraft =
  (draft: Typed) =>
  (edit: Edit): Promise<Edited> =>
    data(api.POST('/api/schedule-edits', { body: { ...nothing, ...edit, draft } }));

/** The same of a sum that is no draft's. */
export const editedSum =
  (of: Schemas['Amount'], schedule: Schemas['TypedTerm'][]) =>
  (edit: Edit): Promise<Edited> =>
    data(api.POST('/api/schedule-edits', { body: { ...nothing, ...edit, of, schedule } }));
