import { Button, Checkbox, SegmentedControl, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, inMark, messageOf, problemOf, type Schemas } from '../api/client';
import { money, plain } from '../design/format';
import { Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

type Wanted = Schemas['Wanted'];

function Lines({
  issued,
  wanted,
  set,
  problem,
}: {
  issued: Schemas['Issued'];
  wanted: Wanted;
  set: (edit: Partial<Wanted>) => void;
  problem: (field: string) => string | undefined;
}) {
  const quantity = (line: number) => wanted.lines.find((l) => l.line === line)?.quantity ?? '';
  const setLine = (line: number, text: string) =>
    set({
      lines: [
        ...wanted.lines.filter((l) => l.line !== line),
        ...(text.trim() ? [{ line, quantity: text }] : []),
      ],
    });
  return (
    <>
      <table className="lines" style={{ marginTop: 0 }}>
        <thead>
          <tr>
            <th>What</th>
            <th className="n">Left</th>
            <th className="n">Credit</th>
          </tr>
        </thead>
        <tbody>
          {issued.document.body.lines.map((l, i) => {
            const left = issued.left.lines[i] ?? '0';
            const wrong = problem(`lines[${i}].quantity`);
            return (
              <tr key={`${i}-${l.description}`}>
                <td>
                  {l.description} <span className="faded small">{plain(l.sums.net)}</span>
                </td>
                <td className="n">{left === '0' ? 'nothing' : left}</td>
                <td className="n" style={{ width: 130 }}>
                  {left !== '0' && (
                    <>
                      <input
                        className="cell boxed"
                        aria-label={`Quantity to credit of ${l.description}`}
                        aria-invalid={Boolean(wrong)}
                        value={quantity(i)}
                        onChange={(e) => setLine(i, e.target.value)}
                      />{' '}
                      <button type="button" className="link" onClick={() => setLine(i, inMark(left))}>
                        all
                      </button>
                    </>
                  )}
                  {wrong && <p className="problem">{wrong}</p>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {issued.document.body.charges.map(
        (c, i) =>
          issued.left.charges[i] && (
            <Checkbox
              key={c.description}
              label={`${c.description}, ${plain(c.amount)}`}
              checked={wanted.charges.includes(i)}
              onChange={(e) =>
                set({
                  charges: e.currentTarget.checked
                    ? [...wanted.charges, i]
                    : wanted.charges.filter((other) => other !== i),
                })
              }
            />
          ),
      )}
    </>
  );
}

/** Takes an issued invoice back, whole or in part; what the note would say is reckoned by the server as one chooses. */
export function CreditDialog({ invoice, onClose }: { invoice: Schemas['InvoiceView']; onClose: () => void }) {
  const issued = invoice.issued as Schemas['Issued'];
  const part = issued.creditNotes.length > 0;
  // A deposit invoice comes about with its money; nobody writes it anew.
  const anew = issued.document.kind !== 'deposit invoice';
  const [wanted, setWanted] = useState<Wanted>({
    what: 'rest',
    reason: '',
    lines: [],
    charges: [],
    amount: '',
    replace: anew && !part,
  });
  const navigate = useNavigate();
  const queries = useQueryClient();
  const options = { params: { path: { id: invoice.id } }, body: wanted };
  const empty =
    (wanted.what === 'lines' && wanted.lines.length + wanted.charges.length === 0) ||
    (wanted.what === 'amount' && !wanted.amount.trim());
  const preview = useQuery({
    queryKey: ['credit', invoice.id, wanted.what, wanted.lines, wanted.charges, wanted.amount],
    enabled: !empty,
    retry: false,
    queryFn: () => data(api.POST('/api/invoices/{id}/credit-notes/preview', options)),
  });
  const credit = useMutation({
    mutationFn: () => data(api.POST('/api/invoices/{id}/credit-notes', options)),
    onSuccess: (answer) => {
      void queries.invalidateQueries();
      onClose();
      if (answer.draftId != null) void navigate(`/invoices/${answer.draftId}`);
    },
  });
  const set = (edit: Partial<Wanted>) => {
    credit.reset();
    setWanted((w) => ({ ...w, ...edit }));
  };
  const problem = (field: string) =>
    problemOf(credit.error, field) ?? (preview.isError ? problemOf(preview.error, field) : undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    credit.mutate();
  };
  const p = preview.isError || empty ? null : preview.data;
  const lineProblem = ['lines', 'charges'].map(problem).find(Boolean);
  return (
    <Dialog onClose={onClose} size="lg" title={`Credit invoice ${issued.document.number}`}>
      <form className="form" onSubmit={submit} noValidate>
        <SegmentedControl
          aria-label="How much"
          value={wanted.what}
          onChange={(what) => set({ what, replace: anew && what === 'rest' && !part })}
          data={[
            { value: 'rest', label: part ? 'All that is left' : 'The whole' },
            { value: 'lines', label: 'Lines of it' },
            { value: 'amount', label: 'An amount' },
          ]}
        />
        {wanted.what === 'rest' && (
          <p>
            The credit note is sent to the client. What was paid on the invoice becomes the client’s credit.
            This cannot be undone.
          </p>
        )}
        {wanted.what === 'lines' && <Lines issued={issued} wanted={wanted} set={set} problem={problem} />}
        {lineProblem && (
          <p className="problem" role="alert">
            {lineProblem}
          </p>
        )}
        {wanted.what === 'amount' && (
          <TextInput
            label={`Amount, tax included; ${money(issued.left.amount)} is left`}
            inputMode="decimal"
            value={wanted.amount}
            error={problem('amount')}
            onChange={(e) => set({ amount: e.currentTarget.value })}
          />
        )}
        <TextInput
          label="Reason, as it is printed"
          data-autofocus
          value={wanted.reason}
          error={problemOf(credit.error, 'reason')}
          onChange={(e) => set({ reason: e.currentTarget.value })}
        />
        {anew && wanted.what === 'rest' && (
          <Checkbox
            label="Begin a new draft with the same lines"
            checked={wanted.replace}
            onChange={(e) => set({ replace: e.currentTarget.checked })}
          />
        )}
        {p && (
          <p aria-live="polite">
            It takes back {plain(p.sums.net)} and {plain(p.sums.tax)} of tax, <b>{money(p.sums.total)}</b> in
            all. The last open installment falls first; what nothing open takes is the client’s credit.
          </p>
        )}
        {credit.isError && !['reason', 'amount', 'lines'].some((f) => problemOf(credit.error, f)) && (
          <Refusal error={messageOf(credit.error) ? credit.error : null} />
        )}
        <Button type="submit" loading={credit.isPending} disabled={empty}>
          {wanted.replace ? 'Credit and replace' : 'Write the credit note'}
        </Button>
      </form>
    </Dialog>
  );
}
