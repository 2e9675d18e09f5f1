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

/** Further clients of the aging table, once somebody asks. @param more what the first page said */
export const agingAfter = (currency: string, more: number | null) =>
  infiniteQueryOptions({
    queryKey: ['aging', currency, more],
    enabled: false,
    initialPageParam: more ?? 0,
    queryFn: ({ pageParam: after }) =>
      data(api.GET('/api/aging/page', { params: { query: { currency, after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
  });

/** What is kept of a client, planned and asked for. */
export const savedOf = (id: number) =>
  queryOptions({
    queryKey: ['client', id, 'saved'],
    queryFn: () => data(api.GET('/api/clients/{id}/saved-methods', { params: { path: { id } } })),
  });

/** What holds for one client's reminders and late fees. */
export const chasingOf = (id: number) =>
  queryOptions({
    queryKey: ['client', id, 'chasing'],
    queryFn: () => data(api.GET('/api/clients/{id}/chasing', { params: { path: { id } } })),
  });

/** The letters to a client, newest first. @param find a part of what they say; empty for all */
export const messagesOf = (id: number, find: string) =>
  queryOptions({
    queryKey: ['client', id, 'messages', find],
    queryFn: () => data(api.GET('/api/clients/{id}/messages', { params: { path: { id }, query: { find } } })),
    placeholderData: keepPreviousData,
  });

export const clientPlan = (id: number) =>
  queryOptions({
    queryKey: ['client', id, 'plan'],
    queryFn: () => data(api.GET('/api/clients/{id}/reminder-plan', { params: { path: { id } } })),
  });

export const clientWays = (id: number) =>
  queryOptions({
    queryKey: ['client', id, 'ways'],
    queryFn: () => data(api.GET('/api/clients/{id}/ways-to-pay', { params: { path: { id } } })),
  });

/** Whether anything is kept at all. */
export const savedSetting = queryOptions({
  queryKey: ['saved-methods', 'setting'],
  queryFn: () => data(api.GET('/api/saved-methods/setting')),
});
