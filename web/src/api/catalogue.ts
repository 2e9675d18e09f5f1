import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** What a list of items shows; the address holds it. */
export interface ItemView {
  filter: string;
  sort: string;
  low: boolean;
  retired: boolean;
}

/** All that is asked of the catalogue begins with this key. */
export const catalogueKey = ['catalogue'] as const;

export const itemsOf = (view: ItemView) =>
  infiniteQueryOptions({
    queryKey: [...catalogueKey, 'items', view],
    initialPageParam: 0,
    queryFn: ({ pageParam: from }) =>
      data(api.GET('/api/catalogue/items', { params: { query: { ...view, from } } })),
    getNextPageParam: (last) => last.more ?? undefined,
    placeholderData: keepPreviousData,
  });

export const itemOf = (id: number) =>
  queryOptions({
    queryKey: [...catalogueKey, 'item', id],
    queryFn: () => data(api.GET('/api/catalogue/items/{id}', { params: { path: { id } } })),
  });

export const bundles = queryOptions({
  queryKey: [...catalogueKey, 'bundles'],
  queryFn: () => data(api.GET('/api/catalogue/bundles')),
});

/** Discounts and charges kept for reuse. */
export const extras = queryOptions({
  queryKey: [...catalogueKey, 'extras'],
  queryFn: () => data(api.GET('/api/catalogue/extras')),
});

/** Categories of income in use. */
export const categories = queryOptions({
  queryKey: [...catalogueKey, 'categories'],
  queryFn: () => data(api.GET('/api/catalogue/categories')),
});

/** Units of the business's own, with their codes. */
export const units = queryOptions({
  queryKey: [...catalogueKey, 'units'],
  queryFn: () => data(api.GET('/api/catalogue/units')),
});

export const choicesOf = (find: string, currency: string) =>
  queryOptions({
    queryKey: [...catalogueKey, 'choices', find, currency],
    queryFn: () => data(api.GET('/api/catalogue/choices', { params: { query: { find, currency } } })),
    placeholderData: keepPreviousData,
  });
