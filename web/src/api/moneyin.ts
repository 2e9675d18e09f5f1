import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from './client';

/** What comes in, by how it stands. */
export const moneyIn = (filter: string) =>
  queryOptions({
    queryKey: ['money-in', 'index', filter],
    queryFn: () => data(api.GET('/api/money-in', { params: { query: { filter } } })),
    placeholderData: keepPreviousData,
  });

/** One payment, or an attempt at one. @param key payment-7, order-7 or planned-7 */
export const moneyRecord = (key: string) =>
  queryOptions({
    queryKey: ['money-in', 'record', key],
    queryFn: () => {
      const path = { id: Number(key.replace(/^\w+-/, '')) };
      if (key.startsWith('planned-'))
        return data(api.GET('/api/money-in/planned/{id}', { params: { path } }));
      return key.startsWith('order-')
        ? data(api.GET('/api/money-in/orders/{id}', { params: { path } }))
        : data(api.GET('/api/money-in/payments/{id}', { params: { path } }));
    },
  });

export const paymentLinks = queryOptions({
  queryKey: ['payment-links'],
  queryFn: () => data(api.GET('/api/payment-links')),
});

export const paymentLink = (id: number) =>
  queryOptions({
    queryKey: ['payment-links', id],
    queryFn: () => data(api.GET('/api/payment-links/{id}', { params: { path: { id } } })),
  });

export const payouts = queryOptions({
  queryKey: ['money-in', 'payouts'],
  queryFn: () => data(api.GET('/api/payouts')),
});

export const payoutOf = (id: number) =>
  queryOptions({
    queryKey: ['money-in', 'payout', id],
    queryFn: () => data(api.GET('/api/payouts/{id}', { params: { path: { id } } })),
  });
