import { Button, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { business as businessQuery, schedules } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { accountOf } from '../api/clients';
import { session as sessionQuery } from '../api/session';
import { Dialog } from '../design/Dialog';
import { money } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { TaxTicks } from '../design/TaxTicks';
import { blankDraft } from './blankDraft';
import { ClientCell } from './ClientCell';
import { invoiceDesk } from './desk';
import { blankLine } from './fields';
import { SENDING } from './sending';
import type { Typed } from './useDraft';

/** What an invoice of one line can be wrong in, here; all else is told on its sheet. */
const ASKED = ['clientId', 'lines[0].unitPrice', 'lines[0].taxes', 'lines[0].description'];

function Quick({
  business,
  kept,
  client: begunFor,
  onClose,
}: {
  business: Schemas['BusinessView'];
  kept: Schemas['KeptSchedule'][];
  client: number | null;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const today = useQuery(sessionQuery).data?.today ?? '';
  const [clientId, setClientId] = useState(begunFor);
  const [amount, setAmount] = useState('');
  const [what, setWhat] = useState('');
  /** The taxes that were ticked; null for those with which a line begins. */
  const [ticked, setTicked] = useState<string[] | null>(null);
  const account = useQuery({ ...accountOf(clientId ?? 0), enabled: clientId !== null }).data;
  const known = account && account.client.id === clientId ? account.client : undefined;
  const typedFor = (whom: Schemas['Client'] | undefined): Typed => {
    const blank = blankDraft(invoiceDesk, business, kept, today, whom);
    const line = blankLine(ticked ?? blank.lines[0]?.taxes ?? []);
    return {
      ...blank,
      clientId,
      subject: what.trim(),
      lines: [{ ...line, description: what.trim() || 'As agreed', quantity: '1', unitPrice: amount }],
    };
  };
  const typed = typedFor(known);
  const reckon = (of: Typed) => data(api.POST('/api/reckonings', { body: of }));
  // As text, which is the same where nothing of it has changed.
  const [shown] = useDebouncedValue(JSON.stringify(typed), 200);
  const sums = useQuery({
    queryKey: ['quick', shown],
    queryFn: () => reckon(JSON.parse(shown) as Typed),
    enabled: amount.trim() !== '',
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  const begin = useMutation({
    mutationFn: async () => {
      // Enter can be quicker than what is kept with the client: its own currency, taxes and schedule are waited for.
      const whom =
        clientId === null ? undefined : (await queries.ensureQueryData(accountOf(clientId))).client;
      const wanted = typedFor(whom);
      const { problems } = await reckon(wanted);
      const asked = problems.filter((p) => ASKED.includes(p.field));
      // A draft may be for nobody yet; this one goes on to its letter.
      if (clientId === null) asked.push({ field: 'clientId', value: '', message: 'choose a client' });
      return asked.length > 0 ? { asked } : { asked, begun: await invoiceDesk.begin(wanted, false) };
    },
    onSuccess: ({ begun }) => {
      if (!begun) return;
      onClose();
      void queries.invalidateQueries();
      void navigate(`/invoices/${begun.id}`, { state: SENDING });
    },
  });
  const of = (field: string) => begin.data?.asked.find((p) => p.field === field)?.message;
  /** What was refused is said until something else is typed. */
  const typing =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      begin.reset();
      set(value);
    };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!begin.isPending) begin.mutate();
  };
  const total = amount.trim() === '' ? undefined : sums.data?.sums?.total;
  return (
    <form className="form" noValidate onSubmit={submit}>
      <ClientCell
        typed={typed}
        client={known}
        change={(edit) => typing(setClientId)(edit(typed).clientId)}
        problem={of('clientId')}
        onChosen={() => document.querySelector<HTMLElement>('[data-quick]')?.focus()}
        onNewClient={() => {
          onClose();
          void navigate('/clients/new?invoice=new');
        }}
      />
      <TextInput
        label={`Amount without tax, in ${typed.currency}`}
        inputMode="decimal"
        data-quick
        autoFocus={begunFor !== null}
        value={amount}
        error={of('lines[0].unitPrice')}
        onChange={(e) => typing(setAmount)(e.currentTarget.value)}
      />
      <TaxTicks
        legend="Tax"
        taxes={business.taxes}
        chosen={typed.lines[0]?.taxes ?? []}
        problem={of('lines[0].taxes')}
        onChange={typing(setTicked)}
      />
      <TextInput
        label="What for"
        placeholder="As agreed"
        maxLength={200}
        value={what}
        error={of('lines[0].description')}
        onChange={(e) => typing(setWhat)(e.currentTarget.value)}
      />
      <p role="status" style={{ margin: '14px 0 0' }}>
        {total ? (
          <>
            <b>{money(total)}</b> in all
          </>
        ) : (
          <span className="faded">The letter is shown before anything is sent.</span>
        )}
      </p>
      <Refusal error={begin.error} />
      <Button type="submit" loading={begin.isPending}>
        See the letter…
      </Button>
    </form>
  );
}

/** An amount, a tax and a client make an invoice of one line; then its letter. */
export default function QuickDialog({ client, onClose }: { client: number | null; onClose: () => void }) {
  const business = useQuery(businessQuery);
  const kept = useQuery(schedules);
  return (
    <Dialog onClose={onClose} title="Quick invoice">
      <Loaded query={business} what="the business">
        {(b) => (
          <Loaded query={kept} what="the schedules">
            {(all) => <Quick business={b} kept={all} client={client} onClose={onClose} />}
          </Loaded>
        )}
      </Loaded>
    </Dialog>
  );
}
