import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** What a list shows, as its address says it; empty words stand for what is usual. */
export type ListView = {
  filter: string;
  which: string;
  from: string;
  to: string;
  sort: string;
  down: boolean;
};

const asked = (v: ListView) => ({
  filter: v.filter || undefined,
  which: v.which || undefined,
  from: v.from || undefined,
  to: v.to || undefined,
});

const ordered = (v: ListView) => ({ ...asked(v), sort: v.sort, down: v.down });

export const invoiceRows = (v: ListView) =>
  infiniteQueryOptions({
    queryKey: ['invoices', 'list', v],
    initialPageParam: 0,
    queryFn: ({ pageParam: start }) =>
      data(api.GET('/api/invoices/list', { params: { query: { ...ordered(v), start } } })),
    getNextPageParam: (last) => last.more ?? undefined,
    placeholderData: keepPreviousData,
  });

export const invoiceTotals = (v: ListView) =>
  queryOptions({
    queryKey: ['invoices', 'totals', asked(v)],
    queryFn: () => data(api.GET('/api/invoices/list/totals', { params: { query: asked(v) } })),
    placeholderData: keepPreviousData,
  });

export const paymentRows = (v: ListView) =>
  infiniteQueryOptions({
    queryKey: ['payments', 'list', v],
    initialPageParam: 0,
    queryFn: ({ pageParam: start }) =>
      data(api.GET('/api/payments/list', { params: { query: { ...ordered(v), start } } })),
    getNextPageParam: (last) => last.more ?? undefined,
    placeholderData: keepPreviousData,
  });

export const paymentTotals = (v: ListView) =>
  queryOptions({
    queryKey: ['payments', 'totals', asked(v)],
    queryFn: () => data(api.GET('/api/payments/list/totals', { params: { query: asked(v) } })),
    placeholderData: keepPreviousData,
  });

export const keptViews = (place: string) =>
  queryOptions({
    queryKey: ['views', place],
    queryFn: () => data(api.GET('/api/views', { params: { query: { place } } })),
  });

/** The same list as a file. */
export const csvOf = (path: string, v: ListView) =>
  `${path}?${new URLSearchParams(
    Object.entries(ordered(v)).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(value)]],
    ),
  ).toString()}`;
