import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type KeyboardEvent, useCallback, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { MeasureFigure } from '../design/Measure';
import { money, plain } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { plainSlip, SendDialog, type Slip } from '../letters/SendDialog';
import { Drawer } from './Drawer';
import { Files } from './Files';
import { FieldProblem, SheetDay, SheetField, usualTax } from './fields';
import { SheetExtras } from './SheetExtras';
import { ClientCell, SheetLines } from './SheetLines';
import { SheetSums } from './SheetSums';
import { ScheduleEditor } from './ScheduleEditor';
import { useRemoved } from './useRemoved';
import { type Typed, useDraft } from './useDraft';
import { useTitle } from '../design/useTitle';

type Business = Schemas['BusinessView'];

function blankDraft(business: Business, today: string, clientId: number | null): Typed {
  const taxes = usualTax(business.taxes);
  return {
    clientId,
    currency: business.business.currency,
    rate: '',
    subject: '',
    reference: '',
    project: '',
    supplyDate: today,
    supplyEnd: '',
    taxInside: false,
    cash: false,
    lines: [{ description: '', quantity: '', unit: '', unitPrice: '', discount: '', taxes }],
    discounts: [],
    charges: [],
    prepaid: '',
    schedule: [{ deposit: false, share: 'rest', days: String(business.business.daysToPay) }],
    notes: '',
    terms: business.documents.terms,
    memo: '',
    fields: {},
    lateFee: null,
    mark: business.mark,
  };
}

/** The sheet: the invoice is written where it will be printed. */
export function Sheet({
  draft,
  client,
}: {
  draft: Schemas['DraftView'] | null;
  /** Whom it is for, where that was chosen before: on a client's account, or by adding one from here. */
  client: number | null;
}) {
  const business = useQuery({ queryKey: ['business'], queryFn: () => data(api.GET('/api/business')) });
  const session = useQuery({ queryKey: ['session'], queryFn: () => data(api.GET('/api/session')) });
  return (
    <Loaded query={business} what="the business">
      {(b) => <Writing draft={draft} client={client} business={b} today={session.data?.today ?? ''} />}
    </Loaded>
  );
}

function Writing({
  draft,
  client,
  business,
  today,
}: {
  draft: Schemas['DraftView'] | null;
  client: number | null;
  business: Business;
  today: string;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  useTitle(draft ? 'Draft' : 'New invoice');
  const [draftId, setDraftId] = useState(draft?.id ?? null);
  // The address changes without a new page, so that nothing typed is lost and a reload finds the draft.
  const onBegun = useCallback((id: number) => {
    window.history.replaceState(null, '', `/invoices/${id}`);
    setDraftId(id);
  }, []);
  const d = useDraft(draft, blankDraft(business, today, client), onBegun);
  const { typed, change, reckoning } = d;
  const removed = useRemoved(typed, change);
  // A draft to which one comes back with a client: it is chosen, and the address says nothing of it any more.
  useEffect(() => {
    if (!draft || client === null) return;
    change((t) => ({ ...t, clientId: client }));
    window.history.replaceState(null, '', `/invoices/${draft.id}`);
  }, [draft, client, change]);

  const ensure = async () => {
    if (d.id.current === null) change((t) => ({ ...t }));
    await d.keep();
    return d.id.current;
  };
  const isBlank = d.id.current === null && !typed.subject && typed.lines.every((l) => !l.description);
  const newClient = async () => {
    const back = isBlank ? 'new' : await ensure();
    void navigate(`/clients/new?invoice=${back ?? 'new'}`);
  };
  const [sending, setSending] = useState<number | null>(null);
  /** Keeps what is typed, then does something with the draft; what is refused stands beside its field. */
  const withKept = async <T,>(what: (id: number) => Promise<T>): Promise<T> => {
    if (!(await d.keep())) throw new Error('It could not be kept, so it was not issued.');
    if (d.id.current === null) throw new Error('Write something first.');
    return what(d.id.current);
  };
  const refused = (error: Error) => d.setProblems(error instanceof ApiError ? error.problems : []);
  const letter = (id: number, slip: Slip) =>
    data(
      api.POST('/api/invoices/{id}/letter', {
        params: { path: { id } },
        body: { version: d.version.current, slip },
      }),
    );
  const issue = useMutation({
    mutationFn: () =>
      withKept(async (id) => {
        await data(
          api.POST('/api/invoices/{id}/issue', {
            params: { path: { id } },
            body: { version: d.version.current },
          }),
        );
        return id;
      }),
    onSuccess: async (id) => {
      await queries.invalidateQueries();
      void navigate(`/invoices/${id}`, { replace: true });
    },
    onError: refused,
  });
  // Before the letter is shown it is asked for once, so that what is missing is told beside its field.
  const toSend = useMutation({
    mutationFn: () =>
      withKept(async (id) => {
        await letter(id, plainSlip);
        return id;
      }),
    onSuccess: (id) => {
      d.setProblems([]);
      setSending(id);
    },
    onError: refused,
  });
  // Ctrl Enter leads on, from wherever one stands on the sheet.
  const onward = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || sending !== null || toSend.isPending)
      return;
    event.preventDefault();
    issue.reset();
    toSend.mutate();
  };
  const notIssued: Error | null = issue.error ?? toSend.error;
  const discard = useMutation({
    mutationFn: async () => {
      await d.keep();
      if (d.id.current !== null)
        await data(
          api.DELETE('/api/invoices/{id}', {
            params: { path: { id: d.id.current }, query: { version: d.version.current } },
          }),
        );
    },
    onSuccess: async () => {
      await queries.invalidateQueries();
      void navigate('/invoices');
    },
  });

  const voidIt = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/invoices/{id}/voiding', {
          params: { path: { id: draftId ?? 0 } },
          body: { reason: 'taken back and not issued again' },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      void navigate('/invoices');
    },
  });

  // Fields left empty are told only once somebody wants to issue; slips are told as they are typed.
  const slips = (reckoning?.problems ?? []).filter((p) => p.value !== '' && p.field !== 'total');
  const known = [...d.problems, ...slips.filter((s) => !d.problems.some((p) => p.field === s.field))];
  const of = (field: string) => known.find((p) => p.field === field)?.message;
  const loose = d.problems.filter((p) =>
    ['lines', 'total', 'client.email', 'schedule', 'currency'].includes(p.field),
  );
  const first = reckoning?.installments[0];
  const own = business.business;
  const field = { typed, change, of };

  return (
    <div className="spread writing" onKeyDown={onward}>
      <Drawer typed={typed} change={change} reckoning={reckoning} onNewClient={() => void newClient()} />
      <div className="record">
        <div className="body">
          <article className="sheet" aria-label="Invoice, not issued yet">
            <div className="top">
              <div>
                <h1>{own.name}</h1>
                <div className="faded small pre">{[own.tagline, own.address].filter(Boolean).join('\n')}</div>
              </div>
              <div>
                <div className="kind">Invoice</div>
                <div className="faded small right">
                  {draft?.number ? `keeps its number, ${draft.number}` : 'numbered when issued'}
                </div>
                <SheetDay name="supplyDate" label="supplied on, or from" {...field} />
                <SheetDay name="supplyEnd" label="to, if a period" hint="left out if one day" {...field} />
              </div>
            </div>
            <div className="parties">
              <ClientCell
                typed={typed}
                change={change}
                problem={of('clientId') ?? of('client.email')}
                onNewClient={() => void newClient()}
              />
              <div>
                <SheetField name="subject" label="For" hint="what it is for, in a few words" {...field} />
                <SheetField name="reference" label="Their order" hint="number, if they gave one" {...field} />
                <SheetField
                  name="project"
                  label="Project"
                  hint="name or number, if there is one"
                  {...field}
                />
                {business.documents.labels.map((label) => (
                  <label key={label} className="field">
                    <span>{label}</span>
                    <input
                      className="cell"
                      placeholder="left out if empty"
                      value={typed.fields[label] ?? ''}
                      aria-invalid={Boolean(of(`fields.${label}`))}
                      onChange={(e) => {
                        const { value } = e.target;
                        change((t) => ({ ...t, fields: { ...t.fields, [label]: value } }));
                      }}
                    />
                    <FieldProblem text={of(`fields.${label}`)} />
                  </label>
                ))}
              </div>
            </div>
            <SheetLines
              typed={typed}
              change={change}
              reckoning={reckoning}
              taxes={business.taxes}
              of={of}
              onRemoved={removed.note}
            />
            <SheetExtras
              typed={typed}
              change={change}
              reckoning={reckoning}
              taxes={business.taxes}
              of={of}
              onRemoved={removed.note}
            />
            <div className="ways">
              <Tick
                label="prices include the tax"
                checked={typed.taxInside}
                onChange={(on) => change((t) => ({ ...t, taxInside: on }))}
              />
              <Tick
                label="paid in cash"
                checked={typed.cash}
                onChange={(on) => change((t) => ({ ...t, cash: on }))}
              />
              <label className="small faded">
                in{' '}
                <input
                  className="cell currency"
                  aria-label="Currency"
                  value={typed.currency ?? ''}
                  maxLength={3}
                  aria-invalid={Boolean(of('currency'))}
                  onChange={(e) => {
                    const currency = e.target.value.toUpperCase();
                    change((t) => ({ ...t, currency }));
                  }}
                />
              </label>
              {typed.currency !== own.currency && (
                <label className="small faded">
                  1 {typed.currency} ={' '}
                  <input
                    className="cell currency"
                    aria-label="Rate"
                    placeholder={business.rates.find((r) => r.currency === typed.currency)?.rate ?? 'rate'}
                    value={typed.rate ?? ''}
                    aria-invalid={Boolean(of('rate'))}
                    onChange={(e) => {
                      const { value } = e.target;
                      change((t) => ({ ...t, rate: value }));
                    }}
                  />{' '}
                  {own.currency}
                </label>
              )}
            </div>
            <FieldProblem text={of('currency') ?? of('rate')} />
            {reckoning?.notes.map((note) => (
              <p key={note} className="soon small">
                {note}
              </p>
            ))}
            <SheetSums typed={typed} change={change} reckoning={reckoning} of={of} />
            <FieldProblem
              text={reckoning?.problems.find((p) => p.field === 'total' && p.value.startsWith('-'))?.message}
            />
            <h2>To be paid</h2>
            {reckoning && reckoning.installments.length > 0 && (
              <MeasureFigure parts={reckoning.installments} />
            )}
            <ScheduleEditor
              typed={typed}
              change={change}
              reckoning={reckoning}
              of={of}
              onRemoved={removed.note}
            />
            <SheetField
              name="notes"
              label="A note to the client"
              hint="printed under the sums"
              long
              {...field}
            />
            <SheetField
              name="terms"
              label="Terms"
              hint="how and when to pay, what is agreed"
              long
              {...field}
            />
            <p className="faded small pre">{own.footer}</p>
          </article>
          <div className="beside">
            <Files id={draftId} ensure={ensure} />
            <SheetField
              name="memo"
              label="A memo for yourself, never printed"
              hint="what only you should know"
              long
              {...field}
            />
          </div>
        </div>
        <div className="foot">
          <Foot name="Net" value={reckoning?.net && plain(reckoning.net)} />
          <Foot name="Tax" value={reckoning?.tax && plain(reckoning.tax)} />
          <Foot name="Total" value={reckoning?.total && money(reckoning.total)} />
          {reckoning?.due && (reckoning.prepaid || reckoning.rounding) && (
            <Foot name="To be paid" value={plain(reckoning.due)} />
          )}
          <Foot name="First due" value={first && plain(first.amount)} />
          <div className="acts">
            {removed.words && (
              <span className="small" role="status">
                {removed.words}{' '}
                <button type="button" className="link" onClick={removed.back}>
                  Bring it back <kbd>Ctrl Z</kbd>
                </button>
              </span>
            )}
            {d.keeping.state === 'conflict' ? (
              <span className="late small" role="alert">
                {d.keeping.text}{' '}
                <button type="button" className="link" onClick={() => window.location.reload()}>
                  Load the other
                </button>{' '}
                <button type="button" className="link" onClick={() => void d.keepMine()}>
                  Keep mine
                </button>
              </span>
            ) : (
              <span className={d.keeping.state === 'failed' ? 'late small' : 'faded small'} role="status">
                {d.keeping.text}
              </span>
            )}
            {draft?.number ? (
              <button type="button" className="link" onClick={() => voidIt.mutate()}>
                Void {draft.number}
              </button>
            ) : (
              <button type="button" className="link" onClick={() => discard.mutate()}>
                Delete draft
              </button>
            )}
            <Button
              variant="outline"
              loading={issue.isPending}
              onClick={() => {
                toSend.reset();
                issue.mutate();
              }}
            >
              Issue only
            </Button>
            <Button
              loading={toSend.isPending}
              onClick={() => {
                issue.reset();
                toSend.mutate();
              }}
            >
              Issue and send…
            </Button>
          </div>
          {notIssued !== null && (
            <p className="problem" role="alert" style={{ flexBasis: '100%' }}>
              Not issued. {messageOf(notIssued)} {loose.map((p) => p.message).join(' ')}
            </p>
          )}
          <Refusal error={discard.error ?? voidIt.error} />
        </div>
      </div>
      {sending !== null && (
        <SendDialog
          title="Issue and send"
          action="Issue and send"
          look={(slip) => letter(sending, slip)}
          send={async (slip) => {
            await data(
              api.POST('/api/invoices/{id}/issue-and-send', {
                params: { path: { id: sending } },
                body: { version: d.version.current, slip },
              }),
            );
            void navigate(`/invoices/${sending}`, { replace: true });
          }}
          onClose={() => setSending(null)}
        />
      )}
    </div>
  );
}

function Tick({
  label,
  checked,
  onChange,
}: {
  label: string;
  checked: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="small faded">
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} /> {label}
    </label>
  );
}

function Foot({ name, value }: { name: string; value: string | null | undefined }) {
  return (
    <span className="figure" data-testid={`foot-${name}`}>
      <small>{name}</small>
      <b>{value || '–'}</b>
    </span>
  );
}
