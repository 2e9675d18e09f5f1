import { queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** Who is signed in, and the business's day. */
export const session = queryOptions({
  queryKey: ['session'],
  queryFn: () => data(api.GET('/api/session')),
});

/** Where one is signed in. */
export const sessions = queryOptions({
  queryKey: ['sessions'],
  queryFn: () => data(api.GET('/api/sessions')),
});

/** Who signed in, or tried to. */
export const accessLog = queryOptions({
  queryKey: ['access-log'],
  queryFn: () => data(api.GET('/api/access-log')),
});
