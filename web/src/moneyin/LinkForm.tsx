import { Button, Checkbox, Radio, Textarea, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { useNavigate } from 'react-router';
import { business as businessQuery } from '../api/business';
import { api, data, inMark, type Schemas } from '../api/client';
import { ClientSelect } from '../clients/ClientSelect';
import { DayField } from '../design/DayField';
import css from '../design/Form.module.css';
import { Loaded, Refusal } from '../design/States';
import { TaxTicks } from '../design/TaxTicks';
import { tell } from '../design/tell';
import { useServerForm } from '../design/useServerForm';
import { usualTax } from '../invoices/fields';

type Record = Schemas['LinkRecord'];
type Typed = Schemas['TypedPaymentLink'] & { [key: string]: unknown };

function begin(record: Record | null, currency: string, usual: string[]): Typed {
  const link = record?.link;
  const chosen = link ? link.asks.least.amount !== link.asks.most.amount : false;
  return {
    title: link?.title ?? '',
    description: link?.description ?? '',
    asks: {
      currency: link?.asks.least.currency ?? currency,
      chosen,
      amount: link && !chosen ? inMark(link.asks.least.amount) : '',
      least: link && chosen ? inMark(link.asks.least.amount) : '',
      most: link && chosen ? inMark(link.asks.most.amount) : '',
    },
    taxes: link?.taxes ?? usual,
    once: link?.rules.once ?? false,
    endsOn: link?.rules.endsOn ?? '',
    terms: link?.rules.terms ?? '',
    fields: link?.fields ?? [],
    after: link?.after ?? { thanks: '', onward: '' },
    clientId: link?.rules.clientId ?? null,
    hold: link?.rules.hold ?? false,
    version: link?.version ?? 0,
  };
}

function Form({
  record,
  business,
  onDone,
}: {
  record: Record | null;
  business: Schemas['BusinessView'];
  onDone?: () => void;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const key = useRef(crypto.randomUUID());
  const form = useServerForm<Typed, Record>({
    initial: begin(record, business.business.currency, usualTax(business.taxes)),
    send: (link) =>
      record
        ? data(api.PUT('/api/payment-links/{id}', { params: { path: { id: record.link.id } }, body: link }))
        : data(api.POST('/api/payment-links', { body: { key: key.current, link } })),
    onDone: async (made) => {
      await queries.invalidateQueries();
      tell(record ? 'Saved.' : 'The payment link is made: it takes payments now.');
      onDone?.();
      if (!record) void navigate(`/money-in/links/${made.link.id}`);
    },
  });
  const typed = form.form.values;
  const set = form.form.setFieldValue;
  const own = record?.link.rules.clientId;
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput
        className={css.whole}
        label="What it is for, in a few words"
        placeholder="Tuning course, spring"
        autoFocus
        {...form.field('title')}
      />
      <Textarea
        className={css.whole}
        label="More about it (may be left empty)"
        autosize
        minRows={2}
        {...form.field('description')}
      />
      <Radio.Group
        className={css.whole}
        label="How much"
        value={typed.asks.chosen ? 'chosen' : 'fixed'}
        onChange={(v) => set('asks.chosen', v === 'chosen')}
      >
        <Radio mt={6} value="fixed" label="one amount" />
        <Radio mt={6} value="chosen" label="the payer chooses, within limits" />
      </Radio.Group>
      {typed.asks.chosen ? (
        <>
          <TextInput
            className={css.third}
            label={`At least, in ${typed.asks.currency}`}
            inputMode="decimal"
            {...form.field('asks.least')}
          />
          <TextInput
            className={css.third}
            label={`At most, in ${typed.asks.currency}`}
            inputMode="decimal"
            {...form.field('asks.most')}
          />
        </>
      ) : (
        <TextInput
          className={css.third}
          label={`Amount with its taxes, in ${typed.asks.currency}`}
          inputMode="decimal"
          {...form.field('asks.amount')}
        />
      )}
      <TaxTicks
        legend="Taxes that are in it"
        taxes={business.taxes}
        chosen={typed.taxes}
        problem={form.form.errors['taxes']}
        onChange={(ids) => set('taxes', ids)}
      />
      <h2>Who pays, and until when</h2>
      <Checkbox className={css.whole} label="It is paid once" {...form.tick('once')} />
      <DayField
        className={css.third}
        label="Its last day (none where empty)"
        lean="coming"
        value={typed.endsOn ?? ''}
        problem={form.form.errors['endsOn'] as string | undefined}
        onChange={(day) => set('endsOn', day)}
      />
      <ClientSelect
        className={css.half}
        label="Only for one client (else for whoever has it)"
        placeholder="type a part of its name"
        clearable
        begin={own == null ? null : { id: own, name: record?.clientName ?? '' }}
        chosen={typed.clientId ?? null}
        onChoose={(id) => set('clientId', id)}
        error={form.form.errors['clientId']}
        nothingFoundMessage="No client fits"
      />
      <Checkbox
        className={css.whole}
        label="Only hold it on the card; take it, or less, when the work is done"
        {...form.tick('hold')}
      />
      <h2>What the payer fills in besides name and address</h2>
      {typed.fields.map((f, i) => (
        <div className={`${css.whole} ${css.acts}`} key={i}>
          <TextInput
            aria-label={`Field ${i + 1}`}
            placeholder="Instrument"
            {...form.at('fields', i, 'label')}
          />
          <Checkbox
            label="must not be left empty"
            checked={f.needed}
            onChange={(e) => set(`fields.${i}.needed`, e.currentTarget.checked)}
          />
          <button
            type="button"
            className="link"
            aria-label={`Remove field ${i + 1}`}
            onClick={() => form.form.removeListItem('fields', i)}
          >
            Remove
          </button>
        </div>
      ))}
      {form.form.errors['fields'] && <p className="problem">{form.form.errors['fields']}</p>}
      {typed.fields.length < 8 && (
        <button
          type="button"
          className={`link ${css.whole}`}
          style={{ justifySelf: 'start' }}
          onClick={() => form.form.insertListItem('fields', { label: '', needed: true })}
        >
          + Field
        </button>
      )}
      <h2>Conditions, and what comes after</h2>
      <Textarea
        className={css.whole}
        label="Conditions that are accepted before paying (none where empty)"
        autosize
        minRows={2}
        {...form.field('terms')}
      />
      <Textarea
        className={css.whole}
        label="What is said after paying (may be left empty)"
        autosize
        minRows={2}
        {...form.field('after.thanks')}
      />
      <TextInput
        className={css.whole}
        label="Where the payer goes on to after paying (may be left empty)"
        placeholder="https://"
        inputMode="url"
        {...form.field('after.onward')}
      />
      <div className={css.whole}>
        <Refusal error={form.elsewhere} />
        <div className={css.acts}>
          <Button type="submit" loading={form.save.isPending}>
            {record ? 'Save' : 'Make the link'}
          </Button>
          {onDone && (
            <Button variant="subtle" onClick={onDone}>
              Cancel
            </Button>
          )}
        </div>
      </div>
    </form>
  );
}

/** A payment link as it is typed: a new one, or one that is changed. */
export function LinkForm({ record, onDone }: { record: Record | null; onDone?: () => void }) {
  const business = useQuery(businessQuery);
  return (
    <Loaded query={business} what="your taxes">
      {(b) => <Form record={record} business={b} onDone={onDone} />}
    </Loaded>
  );
}
