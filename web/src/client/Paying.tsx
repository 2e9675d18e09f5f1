import { useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { isZero, longDate, money, plain } from '../design/format';
import { standingOf } from '../design/Measure';
import { CardPageNote, OnTrial, OtherWays } from './OtherWays';
import { Payer, type PayerNames, nobody } from './Payer';
import { both, ByWhich, TipChoice, Together, useOnTop, type Way } from './OnTop';
import { FromWhat, type Keep, KeepTicks, type OnPage } from './Saved';

type Page = Schemas['PublicPage'];

/** What can be paid now, by which ways: what is due, all that is open, some of it, or another amount. */
export function Paying({
  page: p,
  token,
  saved,
  onSaved,
  onPaid,
  onStale,
}: {
  page: Page;
  token: string | null;
  /** What is kept of the client; null before that is known. */
  saved: OnPage | null;
  onSaved: (saved: OnPage) => void;
  /** Something was taken without leaving the page. */
  onPaid: () => void;
  onStale: () => void;
}) {
  const [wanted, setChosen] = useState(p.paying.plan.early ? 'early' : 'due');
  // What was to be had a moment ago may be gone: something was picked, or paid elsewhere.
  const chosen = wanted === 'early' && !p.paying.plan.early ? 'due' : wanted;
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState('');
  const [some, setSome] = useState<Schemas['Choice'] | null>(null);
  const [other, setOther] = useState('');
  const [payer, setPayer] = useState<PayerNames>(nobody);
  const [keep, setKeep] = useState<Keep | null>(null);
  const [wrongLimit, setWrongLimit] = useState<string>();
  const [from, setFrom] = useState<number | null | undefined>(undefined);
  const [later, setLater] = useState<string | null>(null);
  const [tip, setTip] = useState('');
  const [wantedWay, setWay] = useState<Way>('');
  const choice =
    (chosen === 'some' ? some : null) ??
    p.paying.choices.find((c) => c.what === chosen) ??
    p.paying.choices[0];
  const early = chosen === 'early' ? p.paying.plan.early : null;
  const open0 = choice?.amount ?? p.open;
  const asked = early ?? (chosen === 'other' ? { ...open0, amount: other } : open0);
  const mayChoose = both(choice?.by ?? '');
  const ofInstallments = chosen !== 'early' && chosen !== 'other';
  const usable =
    p.paying.test || p.paying.hold || !ofInstallments ? [] : (saved?.methods ?? []).filter((m) => !m.expired);
  const newest = usable[0]?.id ?? null;
  // A kept one is offered first; one that was removed meanwhile is none any more.
  const method = usable.find((m) => m.id === (from === undefined ? newest : from)) ?? null;
  const way: Way = method ? (method.validUntil ? 'CARD' : 'BANK_DEBIT') : mayChoose ? wantedWay : '';
  const {
    top,
    wrong: wrongTip,
    whole: more,
    waits,
  } = useOnTop(p.paying.hold ? null : token, asked, way, later === null ? tip : '');
  const chosenTop = {
    way,
    tip,
    total: more?.amount ?? '',
  };
  if (!choice) return null;
  const payable = p.measure.filter((m) => !isZero(m.open));
  // What several come to together is the server's.
  const pick = async (ids: number[]) => {
    if (!token || ids.length === 0) return;
    setRefusal('');
    try {
      setSome(
        await data(
          api.GET('/api/public/{token}/choice', {
            params: { path: { token }, query: { installments: ids.join(',') } },
          }),
        ),
      );
      setChosen('some');
    } catch (error) {
      setRefusal(messageOf(error));
      if (error instanceof ApiError && error.status < 500) onStale();
    }
  };
  const failed = (error: unknown) => {
    setRefusal(messageOf(error));
    setGoing(false);
    if (error instanceof ApiError && error.status === 409) onStale();
  };
  const whole = more ?? asked;
  const by =
    way === 'BANK_DEBIT' ? 'by bank debit' : top?.charges && mayChoose ? 'by card' : choice.by || 'by card';
  const sum = { amount: asked.amount, currency: asked.currency };
  const payFrom = async (id: number) => {
    if (!token) return;
    setGoing(true);
    setRefusal('');
    try {
      await data(
        api.POST('/api/public/{token}/saved/{id}/payments', {
          params: { path: { token, id } },
          body: { installments: choice.installments, ...sum, chosen: chosenTop },
        }),
      );
      setGoing(false);
      onPaid();
    } catch (error) {
      failed(error);
    }
  };
  const plan = async (id: number, on: string) => {
    if (!token) return;
    setGoing(true);
    setRefusal('');
    try {
      onSaved(
        await data(
          api.POST('/api/public/{token}/saved/{id}/plans', {
            params: { path: { token, id } },
            body: { installments: choice.installments, ...sum, on },
          }),
        ),
      );
      setLater(null);
      setGoing(false);
    } catch (error) {
      failed(error);
    }
  };
  const pay = async () => {
    if (!token) return;
    setGoing(true);
    setRefusal('');
    setWrongLimit(undefined);
    try {
      const answer = await data(
        api.POST('/api/public/{token}/orders', {
          params: { path: { token } },
          body: {
            installments: chosen === 'early' || chosen === 'other' ? [] : choice.installments,
            amount: asked.amount,
            currency: asked.currency,
            payerName: payer.name,
            payerEmail: payer.email,
            keep: payer.name || payer.email ? null : keep,
            chosen: chosenTop,
          },
        }),
      );
      window.location.assign(answer.address);
    } catch (error) {
      const limit = error instanceof ApiError ? error.of('keep.most') : undefined;
      setWrongLimit(limit);
      failed(error);
      if (limit) setRefusal('');
    }
  };
  // On trial nothing is taken by card.
  const taken = p.paying.cards && !p.paying.test;
  const first = p.measure.find((m) => !isZero(m.open));
  const fee = p.measure.some((m) => m.kind === 'LATE_FEE' && !isZero(m.open));
  const ahead = first !== undefined && first.dueOn !== null && first.dueOn > p.today;
  const dueNow =
    p.paying.choices.length === 1
      ? fee
        ? 'All that is open, with the late fee'
        : 'All that is open'
      : first?.kind === 'DEPOSIT'
        ? 'The deposit'
        : fee
          ? 'What is due now, with the late fee'
          : ahead
            ? `The installment due ${longDate(first.dueOn ?? p.today)}`
            : 'What is due now';
  return (
    <>
      {p.paying.test && <OnTrial />}
      {p.paying.cards && (
        <>
          <fieldset aria-label="What to pay">
            {p.paying.plan.early && (
              <label className="choice">
                <input
                  type="radio"
                  name="what"
                  checked={chosen === 'early'}
                  onChange={() => setChosen('early')}
                />
                <span>
                  All at once
                  <span className="under small faded">
                    {p.paying.plan.off &&
                      `${money(p.paying.plan.off)} off, until ${longDate(p.paying.plan.until ?? p.today)}`}
                  </span>
                </span>
                <b>{money(p.paying.plan.early)}</b>
              </label>
            )}
            {/* Nobody pays all of it at its full price while something is off for that. */}
            {p.paying.choices
              .filter((c) => !p.paying.plan.early || c.amount.amount !== p.open.amount)
              .map((c) => (
                <label key={c.what} className="choice">
                  <input
                    type="radio"
                    name="what"
                    checked={c.what === choice.what && chosen !== 'early' && chosen !== 'other'}
                    onChange={() => setChosen(c.what)}
                  />
                  {c.what === 'all' ? 'All that is open' : dueNow}
                  <b>{money(c.amount)}</b>
                </label>
              ))}
            {payable.length > 2 && token && (
              <>
                <label className="choice">
                  <input
                    type="radio"
                    name="what"
                    checked={chosen === 'some'}
                    onChange={() => void pick([payable[0]?.id ?? 0])}
                  />
                  Some of them
                  <b>{chosen === 'some' && some ? money(some.amount) : ''}</b>
                </label>
                {chosen === 'some' &&
                  some &&
                  payable.map((m) => (
                    <label key={m.id} className="choice some">
                      <input
                        type="checkbox"
                        checked={some.installments.includes(m.id)}
                        onChange={(e) =>
                          void pick(
                            e.target.checked
                              ? [...some.installments, m.id]
                              : some.installments.filter((id) => id !== m.id),
                          )
                        }
                      />
                      {m.kind === 'LATE_FEE'
                        ? 'Late fee'
                        : m.kind === 'DEPOSIT'
                          ? 'Deposit'
                          : `Installment ${m.position}`}
                      , {standingOf(m)}
                      <b>{plain(m.open)}</b>
                    </label>
                  ))}
              </>
            )}
            {p.paying.plan.other && token && (
              <label className="choice">
                <input
                  type="radio"
                  name="what"
                  checked={chosen === 'other'}
                  onChange={() => setChosen('other')}
                />
                Another amount
                {chosen === 'other' && (
                  <input
                    type="text"
                    className="amount"
                    inputMode="decimal"
                    aria-label="Another amount"
                    autoFocus
                    value={other}
                    onChange={(e) => setOther(e.target.value)}
                  />
                )}
              </label>
            )}
          </fieldset>
          {usable.length > 0 && saved && (
            <FromWhat methods={saved.methods} chosen={method?.id ?? null} onChoose={setFrom} />
          )}
          {token && !method && <Payer payer={payer} receipts={p.paying.receipts} onChange={setPayer} />}
          {saved?.offered && !p.paying.test && !method && !payer.name && !payer.email && (
            <KeepTicks from={p.document.from.name} keep={keep} wrong={wrongLimit} onChange={setKeep} />
          )}
          {top?.charges && mayChoose && !method && <ByWhich way={way || 'CARD'} onWay={setWay} />}
          {top && later === null && <TipChoice top={top} tip={tip} wrong={wrongTip} onTip={setTip} />}
          {top && later === null && <Together top={top} sum={asked} />}
          {method ? (
            <>
              {later === null ? (
                <button
                  type="button"
                  className="pay"
                  disabled={going || waits || !!wrongTip}
                  onClick={() => void payFrom(method.id)}
                >
                  Pay {money(whole)} from {method.words}
                </button>
              ) : (
                <form
                  noValidate
                  onSubmit={(e) => {
                    e.preventDefault();
                    void plan(method.id, later);
                  }}
                >
                  <label className="sign">
                    On which day is {money(asked)} taken from {method.words}?
                    <input
                      type="date"
                      autoFocus
                      min={saved?.later?.first}
                      max={saved?.later?.last}
                      value={later}
                      onChange={(e) => setLater(e.target.value)}
                    />
                  </label>
                  <button type="submit" className="pay" disabled={going}>
                    Plan it for that day
                  </button>
                </form>
              )}
              {saved?.later && (
                <button
                  type="button"
                  className="text-button"
                  onClick={() => setLater(later === null ? '' : null)}
                >
                  {later === null
                    ? `Rather on another day, until ${longDate(saved.later.last)}`
                    : 'Rather now'}
                </button>
              )}
            </>
          ) : choice.by || early || chosen === 'other' ? (
            <button
              type="button"
              className="pay"
              disabled={going || waits || !!wrongTip}
              onClick={() => void pay()}
            >
              {p.paying.test ? 'Try paying' : p.paying.hold ? 'Let' : 'Pay'}{' '}
              {chosen === 'other' ? 'it' : money(whole)} {p.paying.hold && !p.paying.test && 'be held '}
              {by}
            </button>
          ) : (
            <p className="told">
              {money(choice.amount)} is not taken on this page; the other ways stand below.
            </p>
          )}
        </>
      )}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
      {p.paying.cards && !method && (
        <CardPageNote
          from={p.document.from}
          certainOn={choice.debitCertainOn}
          wallets={choice.wallets}
          hold={p.paying.hold}
        />
      )}
      <OtherWays
        from={p.document.from}
        iban={p.paying.iban}
        reference={p.paying.reference}
        otherwise={p.paying.otherwise}
        taken={taken}
      />
    </>
  );
}
