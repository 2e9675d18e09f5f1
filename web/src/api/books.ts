import { infiniteQueryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** Balances, and the journal page by page. */
export const books = infiniteQueryOptions({
  queryKey: ['books'],
  initialPageParam: undefined as number | undefined,
  queryFn: ({ pageParam: before }) => data(api.GET('/api/books', { params: { query: { before } } })),
  getNextPageParam: (last) => last.more ?? undefined,
});
