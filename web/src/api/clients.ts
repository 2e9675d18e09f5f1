import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** What a list of clients shows; the address holds it. */
export interface ClientsView {
  filter: string;
  sort: string;
  archived: boolean;
}

export const clientsOf = (view: ClientsView) =>
  infiniteQueryOptions({
    queryKey: ['clients', view],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam: after }) =>
      data(api.GET('/api/clients', { params: { query: { ...view, after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
    placeholderData: keepPreviousData,
  });

export const clientChoices = (filter: string) =>
  queryOptions({
    queryKey: ['clients', 'choices', filter],
    queryFn: () => data(api.GET('/api/clients/choices', { params: { query: { filter } } })),
    placeholderData: keepPreviousData,
  });

export const accountOf = (id: number, currency?: string) =>
  queryOptions({
    queryKey: ['client', id, currency],
    queryFn: () => data(api.GET('/api/clients/{id}', { params: { path: { id }, query: { in: currency } } })),
  });

export const aging = queryOptions({
  queryKey: ['aging'],
  queryFn: () => data(api.GET('/api/aging')),
});
