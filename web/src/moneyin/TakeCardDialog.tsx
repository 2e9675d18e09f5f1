import { Button, Checkbox, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { business as businessQuery } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { accountOf, savedOf, savedSetting } from '../api/clients';
import { ClientSelect } from '../clients/ClientSelect';
import { Dialog } from '../design/Dialog';
import { Loaded, Refusal } from '../design/States';
import { TaxTicks } from '../design/TaxTicks';
import { useServerForm } from '../design/useServerForm';
import { usualTax } from '../invoices/fields';
import { CardPage } from './CollectDialog';
import { KeepSpoken, type Spoken } from './KeepSpoken';

type Typed = Omit<Schemas['TakeCard'], 'details' | 'key' | 'keep'> & {
  details: Record<string, string>;
  keep: Spoken | null;
};

const details = [
  ['orderNumber', 'Order number'],
  ['purchaseOrder', 'Their purchase order'],
  ['deliverTo', 'Delivered to'],
  ['billingName', 'Name on the bill'],
  ['billingPostcode', 'Postcode of the bill'],
] as const;

function TakeCard({
  business,
  client,
}: {
  business: Schemas['BusinessView'];
  client: Schemas['Client'] | null;
}) {
  const [page, setPage] = useState<Schemas['PayPage'] | null>(null);
  // One key for one payment: asked for again, the page is the same.
  const key = useRef({ of: '', key: crypto.randomUUID() });
  const { currency } = business.business;
  const form = useServerForm<Typed, Schemas['PayPage']>({
    initial: {
      clientId: client?.id ?? null,
      name: '',
      email: '',
      what: '',
      currency,
      amount: '',
      delivery: '',
      taxes: usualTax(business.taxes),
      details: Object.fromEntries(details.map(([name]) => [name, ''])),
      hold: false,
      keep: null,
    },
    send: (typed) => {
      const of = JSON.stringify(typed);
      if (key.current.of !== of) key.current = { of, key: crypto.randomUUID() };
      return data(api.POST('/api/payment-links/at-hand', { body: { ...typed, key: key.current.key } }));
    },
    onDone: setPage,
  });
  const typed = form.form.values;
  const known = useQuery({ ...savedOf(typed.clientId ?? 0), enabled: typed.clientId != null });
  const setting = useQuery(savedSetting);
  // Of somebody new the business's own setting decides.
  const possible = typed.clientId == null ? setting.data?.offered : known.data?.possible;
  if (page) return <CardPage page={page} hold={typed.hold} />;
  return (
    <form className="form" noValidate onSubmit={form.submit}>
      <ClientSelect
        label="Who pays"
        placeholder="type a part of a client’s name; empty for somebody new"
        clearable
        data-autofocus={client === null ? true : undefined}
        begin={client}
        chosen={typed.clientId ?? null}
        onChoose={(id) => form.form.setFieldValue('clientId', id)}
        nothingFoundMessage="No client fits: leave it empty and type the name below"
      />
      {typed.clientId == null && <TextInput label="Name of somebody new" {...form.field('name')} />}
      <TextInput
        label={
          typed.clientId == null
            ? 'E-mail, for the receipt (none goes where empty)'
            : 'E-mail, for the receipt'
        }
        placeholder={typed.clientId == null ? '' : 'the client’s own'}
        type="email"
        {...form.field('email')}
      />
      <TextInput
        label="What is paid"
        data-autofocus={client === null ? undefined : true}
        {...form.field('what')}
      />
      <TextInput
        label={`Amount with its taxes, in ${currency}`}
        inputMode="decimal"
        {...form.field('amount')}
      />
      <TextInput
        label={`Delivery, in ${currency} (may be left empty)`}
        inputMode="decimal"
        {...form.field('delivery')}
      />
      <div>
        <TaxTicks
          legend="Taxes that are in it; none where it is exempt"
          taxes={business.taxes}
          chosen={typed.taxes}
          problem={form.form.errors['taxes']}
          onChange={(ids) => form.form.setFieldValue('taxes', ids)}
        />
      </div>
      <details>
        <summary className="link">More about it: it helps where a payment is contested</summary>
        {details.map(([name, label]) => (
          <TextInput key={name} mt={10} label={label} {...form.field(`details.${name}`)} />
        ))}
      </details>
      <Checkbox
        label="Only hold it on the card now; take it, or less, when the work is done"
        {...form.tick('hold')}
      />
      {possible && (
        <KeepSpoken
          keep={typed.keep}
          onChange={(keep) => form.form.setFieldValue('keep', keep)}
          wrong={(field) => form.form.errors[`keep.${field}`] as string | undefined}
        />
      )}
      <Refusal error={form.elsewhere} />
      <Button type="submit" loading={form.save.isPending}>
        Open the card company’s page
      </Button>
    </form>
  );
}

/** A card that is at hand, or told by telephone, with no invoice behind it. */
export default function TakeCardDialog({ client, onClose }: { client: number | null; onClose: () => void }) {
  const business = useQuery(businessQuery);
  const account = useQuery({ ...accountOf(client ?? 0), enabled: client !== null });
  return (
    <Dialog onClose={onClose} title="Take a card, with no invoice">
      <Loaded query={business} what="your taxes">
        {(b) =>
          client === null ? (
            <TakeCard business={b} client={null} />
          ) : (
            <Loaded query={account} what="the client">
              {(a) => <TakeCard business={b} client={a.client} />}
            </Loaded>
          )
        }
      </Loaded>
    </Dialog>
  );
}
