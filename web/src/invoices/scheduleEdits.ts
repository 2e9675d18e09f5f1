import { useMutation } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';
import type { Change } from './fields';
import type { Typed } from './useDraft';

export type Edited = Schemas['Edited'];
export type Edit = Omit<Schemas['Edit'], 'draft' | 'place' | 'share' | 'thousandths'> &
  Partial<Pick<Schemas['Edit'], 'place' | 'share' | 'thousandths'>>;

/** What a schedule would become; the server says it, and nothing is taken yet. */
export const edited = (draft: Typed, edit: Edit): Promise<Edited> =>
  data(api.POST('/api/schedule-edits', { body: { place: 0, share: '', thousandths: 0, ...edit, draft } }));

/** Changes the schedule at one stroke. What was typed meanwhile is not overwritten. */
export function useScheduleEdit(typed: Typed, change: Change) {
  return useMutation({
    mutationFn: (edit: Edit) => edited(typed, edit),
    onSuccess: (became) => {
      const before = JSON.stringify(typed.schedule);
      change((t) => (JSON.stringify(t.schedule) === before ? { ...t, schedule: became.schedule } : t));
    },
  });
}
