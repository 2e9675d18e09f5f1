import { Checkbox } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { choicesOf } from '../api/catalogue';
import { savedOf } from '../api/clients';
import { schedules } from '../api/business';
import { api, ApiError, data, messageOf, problemOf, type Schemas } from '../api/client';
import { MeasureBar } from '../design/Measure';
import { isNegative, isZero, magnitude, money, plain, shortDate } from '../design/format';
import { drawn } from '../settings/drawn';
import { LateFeeFields, noLateFee } from '../settings/LateFeeFields';
import type { Change } from './fields';
import css from './Drawer.module.css';
import type { Typed } from './useDraft';
import type { Choice } from './WhatCell';

const SHOWN = 7;

/** What stands between the business and the client, and what is known of it that counts here. */
function ClientShort({ account: a }: { account: Schemas['AccountView'] }) {
  const last = a.invoices.find((i) => i.number);
  const { more } = a.client;
  return (
    <>
      <h2>{a.client.name}</h2>
      <p className="faded">
        {isZero(a.sums.owes)
          ? 'Owes nothing. '
          : isNegative(a.sums.owes)
            ? `Is owed ${money(magnitude(a.sums.owes))}. `
            : `Owes ${money(a.sums.owes)}. `}
        {!isZero(a.sums.late) && <span className="late">{money(a.sums.late)} of it is late. </span>}
        {last?.issuedOn && `Last invoice ${last.number}, ${shortDate(last.issuedOn)}. `}
        {more.daysToPay !== null && `Has ${more.daysToPay} days to pay. `}
        {!a.client.email && <span className="late">Has no e-mail address yet. </span>}
        <Link to={`/clients/${a.client.id}`}>The account</Link>
      </p>
      <Kept id={a.client.id} />
      {more.notes && <p className={`pre small ${css.notes}`}>{more.notes}</p>}
    </>
  );
}

/** Whether a card or mandate of theirs is kept; where none is, it can be asked for at once. */
function Kept({ id }: { id: number }) {
  const queries = useQueryClient();
  const saved = useQuery(savedOf(id)).data;
  const ask = useMutation({
    mutationFn: () => data(api.POST('/api/clients/{id}/method-requests', { params: { path: { id } } })),
    onSuccess: (answer) => queries.setQueryData(savedOf(id).queryKey, answer.saved),
  });
  if (!saved?.possible) return null;
  const usable = saved.methods.filter((m) => !m.expired);
  return (
    <p className="faded">
      {usable.length > 0
        ? `Kept of theirs: ${usable.map((m) => m.words).join(', ')}.`
        : saved.asked
          ? `No card or mandate is kept; asked for one since ${shortDate(saved.asked.askedOn)}.`
          : 'No card or mandate is kept. '}
      {usable.length === 0 && !saved.asked && (
        <button type="button" className="link" disabled={ask.isPending} onClick={() => ask.mutate()}>
          Ask for one
        </button>
      )}
      {ask.error && <span className="late"> {messageOf(ask.error)}</span>}
    </p>
  );
}

function Catalogue({ currency, onChoose }: { currency: string; onChoose: (choice: Choice) => void }) {
  const [find, setFind] = useState('');
  const [asked] = useDebouncedValue(find.trim(), 120);
  const found = useQuery(choicesOf(asked, currency)).data ?? [];
  return (
    <section aria-label="From the catalogue">
      <h2>From the catalogue</h2>
      <input
        type="search"
        className={css.find}
        aria-label="Find in the catalogue"
        placeholder="a part of the name or code…"
        value={find}
        onChange={(e) => setFind(e.currentTarget.value)}
      />
      {found.slice(0, find ? 12 : SHOWN).map((c) => {
        const price = !c.bundle && c.lines[0]?.unitPrice;
        return (
          <button
            key={`${c.bundle}-${c.id}`}
            type="button"
            className={css.item}
            onClick={() => onChoose(c)}
            title={c.under}
          >
            <span>{c.bundle ? <b>Bundle: {c.name}</b> : c.name}</span>
            <span className="figures">{price ? plain({ amount: price }) : ''}</span>
          </button>
        );
      })}
      {found.length === 0 && (
        <p className="faded small">{find ? 'Nothing fits.' : 'Nothing is in the catalogue yet.'}</p>
      )}
      <p className="small">
        <Link className={css.all} to="/catalogue">
          All of it
        </Link>
      </p>
    </section>
  );
}

/** The drawer beside the sheet: the client in short, the catalogue, schedules to take, ways to pay. */
export function Drawer({
  typed,
  change,
  reckoning,
  account,
  onChoose,
  onNewClient,
  onFold,
}: {
  typed: Typed;
  change: Change;
  reckoning: Schemas['Reckoning'] | null;
  account: Schemas['AccountView'] | undefined;
  onChoose: (choice: Choice) => void;
  onNewClient: () => void;
  onFold: () => void;
}) {
  const kept = useQuery(schedules).data ?? [];
  const [keeping, setKeeping] = useState<string | null>(null);
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: (name: string) =>
      data(api.POST('/api/business/schedules', { body: { name, terms: typed.schedule, usual: false } })),
    onSuccess: async () => {
      setKeeping(null);
      await queries.invalidateQueries({ queryKey: schedules.queryKey });
    },
  });
  return (
    <aside className={`drawer ${css.drawer}`} aria-label="Drawer">
      <section>
        <button type="button" className={css.fold} onClick={onFold}>
          Fold
        </button>
        {typed.clientId && account ? (
          <ClientShort account={account} />
        ) : (
          <>
            <h2>The client</h2>
            <p className="faded">
              Choose one on the sheet, or{' '}
              <button type="button" className="link" onClick={onNewClient}>
                add a new one
              </button>
              .
            </p>
          </>
        )}
      </section>
      <Catalogue currency={typed.currency} onChoose={onChoose} />
      <section>
        <h2>Schedules</h2>
        {reckoning?.installments.some((i) => i.deposit) && (
          <p className="faded">The deposit is asked for only whole.</p>
        )}
        {kept.map((k) => (
          <button
            key={k.id}
            type="button"
            className="kept"
            onClick={() => change((t) => ({ ...t, schedule: k.terms }))}
          >
            <span className="small">{k.name}</span>
            <MeasureBar parts={drawn(k.weights)} height={7} />
          </button>
        ))}
        {keeping === null ? (
          <button type="button" className="link" onClick={() => setKeeping('')}>
            Keep the sheet’s schedule
          </button>
        ) : (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              keep.mutate(keeping);
            }}
          >
            <input
              className={css.find}
              aria-label="Name of the schedule"
              placeholder="its name…"
              autoFocus
              value={keeping}
              onChange={(e) => setKeeping(e.currentTarget.value)}
            />
            <button type="submit" className="link">
              Keep
            </button>
            {keep.error && (
              <p className="problem">{problemOf(keep.error, 'name') ?? messageOf(keep.error)}</p>
            )}
          </form>
        )}
      </section>
      <section>
        <h2>If it is late</h2>
        <p className="faded">{reckoning?.lateFee || 'No late fee is agreed.'}</p>
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
              onChange={(lateFee) => change((t) => ({ ...t, lateFee }), 'lateFee')}
            />
          </div>
        )}
      </section>
    </aside>
  );
}
