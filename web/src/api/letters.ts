import { queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from './client';

export type LetterKind = Schemas['LetterView']['kind'];

export const letters = queryOptions({
  queryKey: ['letters'],
  queryFn: () => data(api.GET('/api/letters')),
});

/** @param payer as it goes to whoever pays for the client */
export const letter = (kind: LetterKind, payer: boolean) =>
  queryOptions({
    queryKey: ['letters', kind, payer],
    queryFn: () => data(api.GET('/api/letters/{kind}', { params: { path: { kind }, query: { payer } } })),
  });
