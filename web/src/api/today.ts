import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from './client';

/** What Today shows. @param weeks how far the Almanac looks */
export const todayOf = (weeks: number) =>
  queryOptions({
    queryKey: ['today', weeks],
    queryFn: () => data(api.GET('/api/today', { params: { query: { weeks } } })),
    placeholderData: (before) => before,
  });

/** Further acts to come, once somebody asks. @param more what the first ones said */
export const actsAfter = (more: string | null) =>
  infiniteQueryOptions({
    queryKey: ['today', 'acts', more],
    enabled: false,
    initialPageParam: more ?? '',
    queryFn: ({ pageParam: after }) => data(api.GET('/api/acts', { params: { query: { after } } })),
    getNextPageParam: (last) => last.more ?? undefined,
  });

/** How many acts a page of the log has: a full one may have another behind it. */
const RUNS = 100;

/** The log of the daily run, newest first. */
export const runs = infiniteQueryOptions({
  queryKey: ['runs'],
  initialPageParam: undefined as number | undefined,
  queryFn: ({ pageParam: before }) => data(api.GET('/api/runs', { params: { query: { before } } })),
  getNextPageParam: (last: Schemas['LoggedActView'][]) =>
    last.length === RUNS ? last[RUNS - 1]?.act.id : undefined,
});
