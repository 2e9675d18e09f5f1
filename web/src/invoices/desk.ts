import { api, data, type Schemas } from '../api/client';
import type { Look, Slip } from '../letters/slip';

type Typed = Schemas['TypedDraft'];

/** Where a kind of document is written, kept, looked at and sent from: the sheet is the same for each. */
export interface Desk {
  kind: 'invoice' | 'quote';
  /** Its place, as an address begins. */
  place: string;
  title: string;
  begin: (typed: Typed, keepalive: boolean) => Promise<Kept>;
  keep: (id: number, version: number, typed: Typed, keepalive: boolean) => Promise<Kept>;
  /** What another window kept meanwhile; null where it is no draft any more. */
  other: (id: number) => Promise<{ theirs: Typed | null; version: number }>;
  discard: (id: number, version: number) => Promise<unknown>;
  issue: (id: number, version: number) => Promise<unknown>;
  letter: (id: number, version: number, slip: Slip) => Promise<Look>;
  issueAndSend: (id: number, version: number, slip: Slip) => Promise<unknown>;
}

type Kept = Schemas['Kept'];

export const invoiceDesk: Desk = {
  kind: 'invoice',
  place: '/invoices',
  title: 'Invoice',
  begin: (typed, keepalive) => data(api.POST('/api/invoices', { body: typed, keepalive })),
  keep: (id, version, typed, keepalive) =>
    data(api.PUT('/api/invoices/{id}', { params: { path: { id } }, body: { version, typed }, keepalive })),
  other: async (id) => {
    const i = await data(api.GET('/api/invoices/{id}', { params: { path: { id } } }));
    return { theirs: i.draft?.typed ?? null, version: i.version };
  },
  discard: (id, version) =>
    data(api.DELETE('/api/invoices/{id}', { params: { path: { id }, query: { version } } })),
  issue: (id, version) =>
    data(api.POST('/api/invoices/{id}/issue', { params: { path: { id } }, body: { version } })),
  letter: (id, version, slip) =>
    data(api.POST('/api/invoices/{id}/letter', { params: { path: { id } }, body: { version, slip } })),
  issueAndSend: (id, version, slip) =>
    data(
      api.POST('/api/invoices/{id}/issue-and-send', { params: { path: { id } }, body: { version, slip } }),
    ),
};
