import { api, data } from '../api/client';
import type { Desk } from '../invoices/desk';
import { plainSlip } from '../letters/slip';

export const quoteDesk: Desk = {
  kind: 'quote',
  place: '/quotes',
  title: 'Quote',
  begin: (typed, keepalive) => data(api.POST('/api/quotes', { body: typed, keepalive })),
  keep: (id, version, typed, keepalive) =>
    data(api.PUT('/api/quotes/{id}', { params: { path: { id } }, body: { version, typed }, keepalive })),
  other: async (id) => {
    const q = await data(api.GET('/api/quotes/{id}', { params: { path: { id } } }));
    return { theirs: q.draft?.typed ?? null, version: q.version };
  },
  discard: (id, version) =>
    data(api.DELETE('/api/quotes/{id}', { params: { path: { id }, query: { version } } })),
  issue: (id, version) =>
    data(
      api.POST('/api/quotes/{id}/issue', { params: { path: { id } }, body: { version, slip: plainSlip } }),
    ),
  letter: (id, version, slip) =>
    data(api.POST('/api/quotes/{id}/letter', { params: { path: { id } }, body: { version, slip } })),
  issueAndSend: (id, version, slip) =>
    data(api.POST('/api/quotes/{id}/issue-and-send', { params: { path: { id } }, body: { version, slip } })),
};
