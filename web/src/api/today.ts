import { queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** What Today shows. @param weeks how far the Almanac looks */
export const todayOf = (weeks: number) =>
  queryOptions({
    queryKey: ['today', weeks],
    queryFn: () => data(api.GET('/api/today', { params: { query: { weeks } } })),
    placeholderData: (before) => before,
  });
