import { api, data, type Why } from '../api/client';

/** Why something is open of an invoice, or of one of its installments and fees. */
export const whyOpen = (id: number, debt?: number) => (): Promise<Why> =>
  data(api.GET('/api/invoices/{id}/why-open', { params: { path: { id }, query: { debt } } }));

/** Why a figure of a client's account is what it is: owes, open, late, or a band of the aging. */
export const whyOfClient = (id: number, figure: string, currency: string) => (): Promise<Why> =>
  data(api.GET('/api/clients/{id}/why', { params: { path: { id }, query: { figure, in: currency } } }));

/** Why a sum of the aging over all clients is what it is; all bands together without one. */
export const whyOfAll = (currency: string, band?: string) => (): Promise<Why> =>
  data(api.GET('/api/aging/why', { params: { query: { in: currency, band } } }));
