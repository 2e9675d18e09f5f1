import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

export const quoteOf = (id: number) =>
  queryOptions({
    queryKey: ['quote', id],
    queryFn: () => data(api.GET('/api/quotes/{id}', { params: { path: { id } } })),
  });

/** The index leaf of quotes. */
export const quotesOf = (filter: string) =>
  queryOptions({
    queryKey: ['quotes', filter],
    queryFn: () => data(api.GET('/api/quotes', { params: { query: { filter } } })),
    placeholderData: keepPreviousData,
  });
