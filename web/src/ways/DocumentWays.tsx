import { Checkbox } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { waysOf } from '../api/invoices';
import { isZero, money, shortDate } from '../design/format';
import { Refusal } from '../design/States';

type Offer = Schemas['WayOffer'];
type Way = Offer['way'];

/** What a way costs and when its money is there, or which rule removed it. */
function OfferLine({ offer: o }: { offer: Offer }) {
  return (
    <li>
      <span className="grow">
        {o.words}
        {o.wallet && (
          <span className="faded small">
            , a wallet{o.offered && '; it shows only on devices that have it;'}
          </span>
        )}
        {o.offered ? (
          <span className="faded small">
            {' '}
            {isZero(o.cost) ? 'costs you nothing' : `costs you ${money(o.cost)}`}, there on{' '}
            {shortDate(o.arrivesOn)} if paid today
          </span>
        ) : (
          // What the business itself wants is no warning.
          <span className={o.on ? 'soon small' : 'faded small'}> not offered: {o.missing}</span>
        )}
      </span>
    </li>
  );
}

/** In which ways a document can be paid, and why in no other. @param fresh changes with what that depends on */
export function DocumentWays({ id, fresh = '' }: { id: number; fresh?: string }) {
  const queries = useQueryClient();
  const [choosing, setChoosing] = useState(false);
  const ways = useQuery(waysOf(id, fresh));
  const shown = (answer: Schemas['WaysOfDocument']) => {
    queries.setQueryData(waysOf(id, fresh).queryKey, answer);
    void queries.invalidateQueries();
  };
  const limit = useMutation({
    mutationFn: (to: Way[] | null) =>
      data(
        api.PUT('/api/invoices/{id}/ways-to-pay', {
          params: { path: { id } },
          body: { limited: to !== null, ways: to ?? [] },
        }),
      ),
    onSuccess: shown,
  });
  const hold = useMutation({
    mutationFn: (to: boolean) =>
      data(api.PUT('/api/invoices/{id}/ways-to-pay/hold', { params: { path: { id } }, body: { hold: to } })),
    onSuccess: shown,
  });
  const w = ways.data;
  if (!w?.sum) return null;
  const all = w.offers.map((o) => o.way);
  const kept = w.choice.limited ? w.choice.ways : all;
  // What is just being kept is shown at once.
  const limited = limit.isPending ? (limit.variables ?? all) : kept;
  const toggle = (way: Way, on: boolean) =>
    limit.mutate(on ? [...limited, way] : limited.filter((l) => l !== way));
  return (
    <section aria-label="Ways to pay" style={{ margin: '18px 0' }}>
      <h2>Ways to pay {money(w.sum)}</h2>
      {w.none && (
        <p className="late" role="alert" style={{ margin: '4px 0' }}>
          <b>There is no way to pay this.</b> Its letter asks for money that its page cannot take.
        </p>
      )}
      <ul className="list">
        {w.offers.map((o) => (
          <OfferLine key={o.way} offer={o} />
        ))}
      </ul>
      {choosing ? (
        <fieldset aria-label="Ways of this document" style={{ border: 0, padding: 0, margin: '6px 0' }}>
          {w.offers.map((o) => (
            <Checkbox
              key={o.way}
              label={o.words}
              my={4}
              checked={limited.includes(o.way)}
              disabled={limit.isPending}
              onChange={(e) => toggle(o.way, e.currentTarget.checked)}
            />
          ))}
          {w.choice.limited && (
            <button type="button" className="link small" onClick={() => limit.mutate(null)}>
              As usual
            </button>
          )}
        </fieldset>
      ) : (
        <button type="button" className="link small" onClick={() => setChoosing(true)}>
          Only some of them…
        </button>
      )}
      {w.offers.some((o) => o.wallet || o.way === 'CARD') && (
        <Checkbox
          my={8}
          label="Its page only holds the money on a card"
          description="You take it, or less of it, when the work is done: within seven days."
          checked={hold.isPending ? hold.variables : w.hold}
          onChange={(e) => hold.mutate(e.currentTarget.checked)}
        />
      )}
      <Refusal error={limit.error ?? hold.error} />
    </section>
  );
}
