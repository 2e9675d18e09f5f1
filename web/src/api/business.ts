import { queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

export const business = queryOptions({
  queryKey: ['business'],
  queryFn: () => data(api.GET('/api/business')),
});

export const schedules = queryOptions({
  queryKey: ['business', 'schedules'],
  queryFn: () => data(api.GET('/api/business/schedules')),
});

export const numbers = queryOptions({
  queryKey: ['business', 'numbers'],
  queryFn: () => data(api.GET('/api/numbers')),
});
