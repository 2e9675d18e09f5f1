import type { Schemas } from '../api/client';
import type { Desk } from './desk';
import { blankLine, usualTax } from './fields';
import type { Typed } from './useDraft';

type Business = Schemas['BusinessView'];

/** The taxes kept with a client that are still offered. */
export const taxesOf = (business: Business, client: Schemas['Client'] | undefined) =>
  (client?.more.taxes ?? []).filter((id) => business.taxes.some((t) => t.id === id && !t.retired));

/** What a new invoice's schedule is: the client's own, else the usual one. */
export function scheduleOf(
  business: Business,
  kept: Schemas['KeptSchedule'][],
  client: Schemas['Client'] | undefined,
): Typed['schedule'] {
  const days = client?.more.daysToPay ?? null;
  const rest = (d: number) => [{ deposit: false, share: 'rest', days: String(d) }];
  return (
    kept.find((k) => k.id === client?.more.schedule)?.terms ??
    (days !== null ? rest(days) : undefined) ??
    kept.find((k) => k.usual)?.terms ??
    rest(business.business.habits.daysToPay)
  );
}

/** What a new one begins with. @param client whom it is for, once that is known: its own terms and taxes */
export function blankDraft(
  desk: Desk,
  business: Business,
  kept: Schemas['KeptSchedule'][],
  today: string,
  client: Schemas['Client'] | undefined,
): Typed {
  const taxes = taxesOf(business, client);
  return {
    clientId: client?.id ?? null,
    currency: client?.more.currency || business.business.currency,
    rate: '',
    subject: '',
    reference: '',
    project: '',
    supplyDate: desk.kind === 'quote' ? '' : today,
    supplyEnd: '',
    taxInside: false,
    cash: false,
    lines: [blankLine(taxes.length > 0 ? taxes : usualTax(business.taxes))],
    discounts: [],
    charges: [],
    prepaid: '',
    schedule: scheduleOf(business, kept, client),
    notes: '',
    terms: business.documents.terms,
    memo: '',
    fields: {},
    lateFee: null,
    offer: desk.kind === 'quote' ? { validUntil: '+30', conditions: '' } : null,
    job: null,
    plan: null,
    mark: business.mark,
  };
}
