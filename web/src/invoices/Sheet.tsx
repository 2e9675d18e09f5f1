import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { MeasureFigure } from '../design/Measure';
import { money, plain } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { type Asked, WhyFigure, WhyNote } from '../design/Why';
import { Drawer } from './Drawer';
import { ClientCell, FieldProblem, SheetLines } from './SheetLines';
import { ScheduleEditor } from './ScheduleEditor';
import { type Typed, useDraft } from './useDraft';

type Business = Schemas['BusinessView'];

function blankDraft(business: Business, today: string): Typed {
  const taxes = business.taxes.slice(0, 1).map((t) => t.id);
  return {
    clientId: null,
    currency: business.business.currency,
    subject: '',
    reference: '',
    supplyDate: today,
    supplyEnd: '',
    taxInside: false,
    lines: [{ description: '', quantity: '', unit: '', unitPrice: '', discount: '', taxes }],
    schedule: [{ deposit: false, share: 'rest', days: String(business.business.daysToPay) }],
    lateFee: null,
    notes: '',
  };
}

/** The sheet: the invoice is written where it will be printed. */
export function Sheet({ draft }: { draft: Schemas['DraftView'] | null }) {
  const business = useQuery({ queryKey: ['business'], queryFn: () => data(api.GET('/api/business')) });
  const session = useQuery({ queryKey: ['session'], queryFn: () => data(api.GET('/api/session')) });
  return (
    <Loaded query={business} what="the business">
      {(b) => <Writing draft={draft} business={b} today={session.data?.today ?? ''} />}
    </Loaded>
  );
}

function Writing({
  draft,
  business,
  today,
}: {
  draft: Schemas['DraftView'] | null;
  business: Business;
  today: string;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [asked, setAsked] = useState<Asked | null>(null);
  // The address changes without a new page, so that nothing typed is lost and a reload finds the draft.
  const onBegun = useCallback((id: number) => window.history.replaceState(null, '', `/invoices/${id}`), []);
  const d = useDraft(draft, blankDraft(business, today), onBegun);
  const { typed, change, reckoning } = d;

  const issue = useMutation({
    mutationFn: async (send: boolean) => {
      if (!(await d.keep())) throw new Error('It could not be kept, so it was not issued.');
      if (d.id.current === null) throw new Error('Write something first.');
      const options = { params: { path: { id: d.id.current } }, body: { version: d.version.current } };
      if (send) await data(api.POST('/api/invoices/{id}/issue-and-send', options));
      else await data(api.POST('/api/invoices/{id}/issue', options));
      return d.id.current;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries();
      void navigate(`/invoices/${id}`, { replace: true });
    },
    onError: (error) => d.setProblems(error instanceof ApiError ? error.problems : []),
  });
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

  // Fields left empty are told only once somebody wants to issue; slips are told as they are typed.
  const slips = (reckoning?.problems ?? []).filter((p) => p.value !== '' && p.field !== 'total');
  const known = [...d.problems, ...slips.filter((s) => !d.problems.some((p) => p.field === s.field))];
  const of = (field: string) => known.find((p) => p.field === field)?.message;
  const loose = d.problems.filter((p) =>
    ['lines', 'total', 'client.email', 'schedule', 'currency'].includes(p.field),
  );
  const first = reckoning?.installments[0];
  const own = business.business;

  return (
    <div className="spread writing">
      <Drawer typed={typed} change={change} reckoning={reckoning} />
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
                <div className="faded small right">numbered when issued</div>
                <label className="field small right">
                  <span>supplied on, or from</span>
                  <input
                    className="cell"
                    type="date"
                    value={typed.supplyDate ?? ''}
                    aria-invalid={Boolean(of('supplyDate'))}
                    onChange={(e) => change((t) => ({ ...t, supplyDate: e.target.value }))}
                  />
                  <FieldProblem text={of('supplyDate')} />
                </label>
                <label className="field small right">
                  <span>to, if a period</span>
                  <input
                    className="cell"
                    type="date"
                    value={typed.supplyEnd ?? ''}
                    aria-invalid={Boolean(of('supplyEnd'))}
                    onChange={(e) => change((t) => ({ ...t, supplyEnd: e.target.value }))}
                  />
                  <FieldProblem text={of('supplyEnd')} />
                </label>
              </div>
            </div>
            <div className="parties">
              <ClientCell typed={typed} change={change} problem={of('clientId') ?? of('client.email')} />
              <div>
                <label className="field">
                  <span>For</span>
                  <input
                    className="cell"
                    value={typed.subject ?? ''}
                    placeholder="what it is for, in a few words"
                    onChange={(e) => change((t) => ({ ...t, subject: e.target.value }))}
                  />
                </label>
                <label className="field">
                  <span>Their order</span>
                  <input
                    className="cell"
                    value={typed.reference ?? ''}
                    placeholder="number, if they gave one"
                    onChange={(e) => change((t) => ({ ...t, reference: e.target.value }))}
                  />
                </label>
              </div>
            </div>
            <SheetLines
              typed={typed}
              change={change}
              reckoning={reckoning}
              taxes={business.taxes}
              of={of}
              onAsk={setAsked}
            />
            <label className="small faded">
              <input
                type="checkbox"
                checked={typed.taxInside}
                onChange={(e) => change((t) => ({ ...t, taxInside: e.target.checked }))}
              />{' '}
              prices include the tax
            </label>
            <table className="sums">
              <tbody>
                <tr>
                  <td>Net</td>
                  <td>
                    {reckoning?.net && (
                      <WhyFigure text={plain(reckoning.net)} why={reckoning.net.why} onAsk={setAsked} />
                    )}
                  </td>
                </tr>
                {reckoning?.taxes.map((t) => (
                  <tr key={t.name}>
                    <td>
                      {t.name} on {plain(t.base)}
                    </td>
                    <td>
                      <WhyFigure text={plain(t.amount)} why={t.why} onAsk={setAsked} />
                    </td>
                  </tr>
                ))}
                <tr className="total">
                  <td>Total</td>
                  <td>
                    {reckoning?.total && (
                      <WhyFigure text={money(reckoning.total)} why={reckoning.total.why} onAsk={setAsked} />
                    )}
                  </td>
                </tr>
              </tbody>
            </table>
            <FieldProblem
              text={reckoning?.problems.find((p) => p.field === 'total' && p.value.startsWith('-'))?.message}
            />
            <h2>To be paid</h2>
            {reckoning && reckoning.installments.length > 0 && (
              <MeasureFigure parts={reckoning.installments} />
            )}
            <ScheduleEditor typed={typed} change={change} reckoning={reckoning} of={of} onAsk={setAsked} />
            <label className="field">
              <span>A note to the client</span>
              <textarea
                className="cell"
                value={typed.notes ?? ''}
                onChange={(e) => change((t) => ({ ...t, notes: e.target.value }))}
              />
            </label>
            <p className="faded small pre">{own.footer}</p>
          </article>
          <WhyNote asked={asked} />
        </div>
        <div className="foot">
          <Foot name="Net" value={reckoning?.net && plain(reckoning.net)} />
          <Foot name="Tax" value={reckoning?.tax && plain(reckoning.tax)} />
          <Foot name="Total" value={reckoning?.total && money(reckoning.total)} />
          <Foot name="First due" value={first && plain(first.amount)} />
          <div className="acts">
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
            <button type="button" className="link" onClick={() => discard.mutate()}>
              Throw away
            </button>
            <Button variant="outline" loading={issue.isPending} onClick={() => issue.mutate(false)}>
              Issue only
            </Button>
            <Button loading={issue.isPending} onClick={() => issue.mutate(true)}>
              Issue and send
            </Button>
          </div>
          {issue.error && (
            <p className="problem" role="alert" style={{ flexBasis: '100%' }}>
              Not issued. {messageOf(issue.error)} {loose.map((p) => p.message).join(' ')}
            </p>
          )}
          <Refusal error={discard.error} />
        </div>
      </div>
    </div>
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
