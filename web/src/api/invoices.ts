import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** All that is asked of single documents begins with this key. */
export const invoiceKey = ['invoice'] as const;

export const invoiceOf = (id: number) =>
  queryOptions({
    queryKey: [...invoiceKey, id],
    queryFn: () => data(api.GET('/api/invoices/{id}', { params: { path: { id } } })),
  });

/** Files kept with a draft. @param id null before the draft was kept */
export const filesOf = (id: number | null) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'files'],
    enabled: id !== null,
    queryFn: () => data(api.GET('/api/invoices/{id}/attachments', { params: { path: { id: id ?? 0 } } })),
  });

export const timelineOf = (id: number) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'timeline'],
    queryFn: () => data(api.GET('/api/invoices/{id}/timeline', { params: { path: { id } } })),
  });

/** Milestones of an invoice, and what was agreed before of its installments. */
export const agreedOf = (id: number) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'agreed'],
    queryFn: () => data(api.GET('/api/invoices/{id}/agreed', { params: { path: { id } } })),
  });

export const correctionsOf = (id: number) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'corrections'],
    queryFn: () => data(api.GET('/api/invoices/{id}/corrections', { params: { path: { id } } })),
  });

export const creditNoteOf = (id: number) =>
  queryOptions({
    queryKey: ['credit note', id],
    queryFn: () => data(api.GET('/api/credit-notes/{id}', { params: { path: { id } } })),
  });

/** The index leaf: the first page of each time. */
export const groupsOf = (filter: string) =>
  queryOptions({
    queryKey: ['invoices', filter],
    queryFn: () => data(api.GET('/api/invoices', { params: { query: { filter } } })),
    placeholderData: keepPreviousData,
  });

/** Further pages of one time, once somebody asks. @param more what the first page said */
export const groupOf = (when: string, filter: string, more: string | null) =>
  infiniteQueryOptions({
    queryKey: ['invoices', when, filter, more],
    enabled: false,
    initialPageParam: more ?? '',
    queryFn: ({ pageParam: after }) =>
      data(api.GET('/api/invoices/page', { params: { query: { when, filter, after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
  });

/** The plan that holds for a document, on its own days. @param fresh changes with what the days depend on */
export const planOf = (id: number, fresh: string) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'plan', fresh],
    queryFn: () => data(api.GET('/api/invoices/{id}/reminder-plan', { params: { path: { id } } })),
    placeholderData: keepPreviousData,
  });

/** In which ways a document can be paid. @param fresh changes with what that depends on */
export const waysOf = (id: number, fresh: string) =>
  queryOptions({
    queryKey: [...invoiceKey, id, 'ways', fresh],
    queryFn: () => data(api.GET('/api/invoices/{id}/ways-to-pay', { params: { path: { id } } })),
    placeholderData: keepPreviousData,
  });
