import { Checkbox } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ApiError, data, type Schemas } from '../api/client';
import { isNegative, isZero, money, shortDate } from '../design/format';
import { MeasureBar } from '../design/Measure';
import { LateFeeFields, noLateFee } from '../settings/LateFeeFields';
import type { Term, Typed } from './useDraft';

const kept: { name: string; terms: Term[]; weights: number[] }[] = [
  { name: 'All in 30 days', terms: [{ deposit: false, share: 'rest', days: '30' }], weights: [1] },
  {
    name: '40% deposit, the rest in 30 days',
    terms: [
      { deposit: true, share: '40%', days: '0' },
      { deposit: false, share: 'rest', days: '30' },
    ],
    weights: [40, 60],
  },
  {
    name: 'Half now, half in 30 days',
    terms: [
      { deposit: false, share: '50%', days: '0' },
      { deposit: false, share: '50%', days: '30' },
    ],
    weights: [50, 50],
  },
];

function ClientShort({ id }: { id: number }) {
  const account = useQuery({
    queryKey: ['client', id],
    queryFn: () => data(api.GET('/api/clients/{id}', { params: { path: { id } } })),
  });
  const a = account.data;
  if (!a) return null;
  const last = a.invoices.find((i) => i.number);
  return (
    <>
      <h2>{a.client.name}</h2>
      <p className="faded" style={{ margin: 0 }}>
        {isZero(a.owes)
          ? 'Owes nothing. '
          : isNegative(a.owes)
            ? `Is owed ${money(a.owes).replace('−', '')}. `
            : `Owes ${money(a.owes)}. `}
        {!isZero(a.late) && <span className="late">{money(a.late)} of it is late. </span>}
        {last?.issuedOn && `Last invoice ${last.number}, ${shortDate(last.issuedOn)}. `}
        {!a.client.email && <span className="late">Has no e-mail address yet. </span>}
        <Link to={`/clients/${id}`}>The account</Link>
      </p>
    </>
  );
}

/** The drawer beside the sheet: the client in short, schedules to take, ways to pay. */
export function Drawer({
  typed,
  change,
  reckoning,
  onNewClient,
}: {
  typed: Typed;
  change: (edit: (before: Typed) => Typed) => void;
  reckoning: Schemas['Reckoning'] | null;
  onNewClient: () => void;
}) {
  const parts = (weights: number[]) =>
    weights.map((weight, i) => ({
      position: i + 1,
      deposit: false,
      amount: { amount: '0', currency: 'EUR' },
      dueOn: '2027-01-01',
      weight,
    }));
  return (
    <aside className="drawer" aria-label="Drawer">
      <section>
        {typed.clientId ? (
          <ClientShort id={typed.clientId} />
        ) : (
          <>
            <h2>The client</h2>
            <p className="faded" style={{ margin: 0 }}>
              Choose one on the sheet, or{' '}
              <button type="button" className="link" onClick={onNewClient}>
                add a new one
              </button>
              .
            </p>
          </>
        )}
      </section>
      <section>
        <h2>Schedules</h2>
        {kept.map((k) => (
          <button
            key={k.name}
            type="button"
            className="kept"
            onClick={() => change((t) => ({ ...t, schedule: k.terms }))}
          >
            {k.name}
            <MeasureBar parts={parts(k.weights)} height={8} />
          </button>
        ))}
      </section>
      <section>
        <h2>If it is late</h2>
        <p className="faded" style={{ margin: '0 0 6px' }}>
          {reckoning?.lateFee || 'No late fee is agreed.'}
        </p>
        <Checkbox
          label="This invoice has its own late fee"
          checked={typed.lateFee != null}
          onChange={(e) => {
            const { checked } = e.currentTarget;
            change((t) => ({ ...t, lateFee: checked ? noLateFee : null }));
          }}
        />
        {typed.lateFee && (
          <div className="form" style={{ marginTop: 8 }}>
            <LateFeeFields
              value={typed.lateFee}
              path="lateFee."
              error={reckoning ? new ApiError(422, '', reckoning.problems) : null}
              onChange={(lateFee) => change((t) => ({ ...t, lateFee }))}
            />
          </div>
        )}
      </section>
      <section>
        <h2>Ways to pay</h2>
        <p className="faded" style={{ margin: 0 }}>
          By card on the client’s page, and by bank transfer to the account in Settings.
          {reckoning?.installments.some((i) => i.deposit) && ' The deposit is asked for only whole.'}
        </p>
      </section>
    </aside>
  );
}
