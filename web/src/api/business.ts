import { queryOptions, useQuery } from '@tanstack/react-query';
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

export const reminderPlan = queryOptions({
  queryKey: ['business', 'plan'],
  queryFn: () => data(api.GET('/api/reminder-plan')),
});

export const notices = queryOptions({
  queryKey: ['notices'],
  queryFn: () => data(api.GET('/api/notices', { params: { query: { after: 0 } } })),
});

export const noticeSetting = queryOptions({
  queryKey: ['business', 'notices'],
  queryFn: () => data(api.GET('/api/notice-setting')),
});

export const waysToPay = queryOptions({
  queryKey: ['business', 'ways'],
  queryFn: () => data(api.GET('/api/ways-to-pay')),
});

/** What whoever paid is sent. */
export const receiptSetting = queryOptions({
  queryKey: ['business', 'receipts'],
  queryFn: () => data(api.GET('/api/receipt-setting')),
});

/** Whether whoever pays an invoice by itself is sent a receipt. */
export function useReceipts() {
  return useQuery(receiptSetting).data?.gets !== 'NOTHING';
}

export const namedPlans = queryOptions({
  queryKey: ['business', 'plans'],
  queryFn: () => data(api.GET('/api/reminder-plans')),
});

export const lateFees = queryOptions({
  queryKey: ['business', 'late-fees'],
  queryFn: () => data(api.GET('/api/late-fees')),
});

/** Public holidays. @param country empty for none */
export const holidaysOf = (country: string) =>
  queryOptions({
    queryKey: ['holidays', country],
    enabled: country !== '',
    queryFn: () => data(api.GET('/api/holidays', { params: { query: { country } } })),
  });

export const processors = queryOptions({
  queryKey: ['business', 'processors'],
  queryFn: () => data(api.GET('/api/processors')),
});
