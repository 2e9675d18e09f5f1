import '@mantine/spotlight/styles.css';
import { createSpotlight, Spotlight } from '@mantine/spotlight';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from './api/client';
import { useHeldKeys } from './design/useHeldKeys';
import css from './Frame.module.css';

const [store, palette] = createSpotlight();
export { palette };

const kinds: Record<Schemas['Found']['kind'], string> = {
  CLIENT: 'Clients',
  INVOICE: 'Invoices',
  CREDIT_NOTE: 'Credit notes',
  QUOTE: 'Quotes',
  PAYMENT: 'Payments',
  ITEM: 'Catalogue',
  BUNDLE: 'Bundles',
};

/** Places, by the words with which somebody may ask for them. */
const own: { title: string; to: string; words?: string }[] = [
  { title: 'Today', to: '/' },
  { title: 'Done so far', to: '/done', words: 'history log' },
  { title: 'Quotes', to: '/quotes', words: 'offers estimates' },
  { title: 'Invoices', to: '/invoices' },
  { title: 'All invoices, as a list', to: '/invoices/list', words: 'table export csv totals' },
  { title: 'Money in', to: '/money-in', words: 'payments received contested debit' },
  { title: 'All payments', to: '/money-in/list', words: 'money in list csv received' },
  { title: 'Payment links', to: '/money-in/links', words: 'money in pay without invoice qr code button' },
  { title: 'Payouts', to: '/money-in/payouts', words: 'card processor bank clearing' },
  { title: 'Clients', to: '/clients' },
  { title: 'Aging', to: '/aging', words: 'late overdue owes' },
  { title: 'Take clients in, from a table or cards', to: '/clients/table', words: 'import csv vcard' },
  { title: 'Catalogue', to: '/catalogue', words: 'items prices' },
  { title: 'Take a table of items in', to: '/catalogue/table', words: 'import csv' },
  { title: 'Books', to: '/books', words: 'journal accounts ledger' },
  { title: 'Settings: the business', to: '/settings', words: 'address iban bank logo numbers' },
  { title: 'Settings: taxes and currencies', to: '/settings/taxes', words: 'vat rate exchange' },
  { title: 'Settings: documents', to: '/settings/documents', words: 'layout terms fields cash' },
  { title: 'Settings: reminders and late fees', to: '/settings/reminders', words: 'plan dunning' },
  { title: 'Settings: schedules', to: '/settings/schedules', words: 'installments' },
  {
    title: 'Settings: ways to pay',
    to: '/settings/ways',
    words: 'card transfer cash cheque bank debit wallet limits saved kept surcharge tips receipts pay later',
  },
  { title: 'Settings: card processors', to: '/settings/processors', words: 'keys test payout' },
  { title: 'Settings: letters', to: '/settings/letters', words: 'wording mail templates' },
  { title: 'Settings: what you hear of', to: '/settings/notices', words: 'notices alerts' },
  { title: 'Settings: sign-ins', to: '/settings/access', words: 'access security passphrase' },
];

/** What can be done with something that was found. */
function actsOf(f: Schemas['Found']): { title: string; to: string }[] {
  if (f.kind === 'CLIENT')
    return [{ title: `New invoice for ${f.title}`, to: `/invoices/new?client=${f.id}` }];
  if (f.kind === 'INVOICE' && !f.title.startsWith('Draft'))
    return [{ title: `New credit note for ${f.title}`, to: `${f.place}?do=credit` }];
  return [];
}

const fits = (query: string, text: string) =>
  query
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));

/** What is longer than its place can be read by keyboard alone. */
const readable = { viewportProps: { tabIndex: 0 } };

/**
 * Finds clients, documents, amounts, payments, items, places and acts, by keyboard alone.
 *
 * @param fresh what can be begun: its name, the act, and the words with which somebody may ask for it
 */
export function Find({ fresh }: { fresh: readonly (readonly [string, () => void, string])[] }) {
  const [query, setQuery] = useState('');
  const [asked] = useDebouncedValue(query.trim(), 80);
  const navigate = useNavigate();
  const answer = useQuery({
    queryKey: ['finding', asked],
    enabled: asked !== '',
    queryFn: () => data(api.GET('/api/finding', { params: { query: { words: asked } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const found = asked === '' ? [] : (answer.data ?? []);
  const words = query.trim();
  const places = own.filter((p) => words !== '' && fits(words, `${p.title} ${p.words ?? ''}`));
  const begins = fresh.filter(([name, , asks]) => words !== '' && fits(words, `${name} ${asks}`));
  const acts = found.slice(0, 3).flatMap(actsOf);
  const groups = Object.entries(kinds)
    .map(([kind, label]) => ({ label, rows: found.filter((f) => f.kind === kind) }))
    .filter((g) => g.rows.length > 0);
  const action = (key: string, title: string, to: string | (() => void), under?: string) => (
    <Spotlight.Action key={key} onClick={() => (typeof to === 'string' ? void navigate(to) : to())}>
      <span className={css.found}>
        <span>{title}</span>
        {under && <span className={css.under}>{under}</span>}
      </span>
    </Spotlight.Action>
  );
  const settled =
    words === '' || answer.isError || (asked === words && answer.isSuccess && !answer.isPlaceholderData);
  // Enter in a hurry opens the first of what fits all that was typed, not of what fitted the letters before.
  const { hold } = useHeldKeys(settled, () =>
    document.querySelector<HTMLElement>('.mantine-Spotlight-action')?.click(),
  );
  const nothing = asked !== '' && found.length + begins.length + places.length === 0 && !answer.isFetching;
  return (
    <Spotlight.Root
      store={store}
      query={query}
      onQueryChange={setQuery}
      onSpotlightOpen={() => setQuery('')}
      shortcut={['mod + K']}
      tagsToIgnore={[]}
      triggerOnContentEditable
      scrollable
      maxHeight="70vh"
      // While it faded out it took the keys of somebody who was already on the page that was chosen.
      transitionProps={{ duration: 0 }}
      overlayProps={{ transitionProps: { duration: 0 } }}
    >
      <Spotlight.Search
        placeholder="A name, a number, an amount, a place…"
        aria-label="Find anything"
        onKeyDownCapture={(event) => hold(event, (k) => k === 'Enter')}
      />
      <Spotlight.ActionsList {...readable}>
        {groups.map((g) => (
          <Spotlight.ActionsGroup key={g.label} label={g.label}>
            {g.rows.map((f) => action(`${f.kind}-${f.id}`, f.title, f.place, f.under))}
          </Spotlight.ActionsGroup>
        ))}
        {acts.length + begins.length + places.length > 0 && (
          <Spotlight.ActionsGroup label="Places and acts">
            {begins.map(([name, begin]) => action(name, name, begin))}
            {places.map((p) => action(p.to, p.title, p.to))}
            {acts.map((a) => action(a.to, a.title, a.to))}
          </Spotlight.ActionsGroup>
        )}
        {nothing && <Spotlight.Empty>Nothing has these words.</Spotlight.Empty>}
        {asked === '' && (
          <Spotlight.Empty>Clients, invoices, payments, items, amounts, places.</Spotlight.Empty>
        )}
      </Spotlight.ActionsList>
    </Spotlight.Root>
  );
}
