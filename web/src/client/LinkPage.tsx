import { type FormEvent, useEffect, useRef, useState } from 'react';
import { api, data, messageOf, problemOf, type Schemas } from '../api/client';
import { longDate, money } from '../design/format';
import { LinkCame } from './LinkCame';
import { NotShown } from './NotShown';
import { both, ByWhich, TipChoice, Together, useOnTop, type Way } from './OnTop';
import { CardPageNote, OnTrial } from './OtherWays';

type Page = Schemas['LinkPage'];

/** A field of a payer's own, with what was wrong with it below. */
function Field({
  label,
  optional = false,
  wrong,
  ...input
}: {
  label: string;
  optional?: boolean;
  wrong: string | null | undefined;
} & React.InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="field">
      {label}
      {optional && <span className="faded small"> (may be left empty)</span>}
      <input type="text" aria-invalid={wrong ? true : undefined} {...input} />
      {wrong && <span className="wrong small">{wrong}</span>}
    </label>
  );
}

const over: { [state in Page['state']]?: string } = {
  PAID: 'This has been paid. Nothing more is taken here.',
  CLOSED: 'This link takes no payments any more.',
  ENDED: 'This link could be paid until its last day, which is past.',
};

type Filled = { name: string; email: string; amount: string; answers: Record<string, string> };

/** What was filled in stays for this visit: whoever comes back without having paid types nothing twice. */
const kept = (token: string): Partial<Filled> => {
  try {
    return JSON.parse(window.sessionStorage.getItem(`filled-${token}`) ?? '{}') as Partial<Filled>;
  } catch {
    return {};
  }
};

/** A new key for each payment; the same for one that is only sent again. */
const newKey = () => crypto.randomUUID();

function Paying({ page: p, token }: { page: Page; token: string }) {
  const fixed = p.asks.least.amount === p.asks.most.amount;
  const [before] = useState(() => kept(token));
  const [amount, setAmount] = useState(fixed ? p.asks.least.amount : (before.amount ?? ''));
  const [name, setName] = useState(before.name ?? '');
  const [email, setEmail] = useState(before.email ?? '');
  const [answers, setAnswers] = useState<Record<string, string>>(before.answers ?? {});
  const [agreed, setAgreed] = useState(false);
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState<unknown>(null);
  const [tip, setTip] = useState('');
  const [way, setWay] = useState<Way>('');
  const sum = { amount, currency: p.asks.least.currency };
  // What is only held is taken later, or less of it: nothing is on top of that.
  const { top, wrong: wrongTip, whole, waits } = useOnTop(p.takes.hold ? null : token, sum, way, tip);
  const mayChoose = both(p.takes.by);
  const key = useRef(newKey());
  const form = useRef<HTMLFormElement>(null);
  const wrong = (field: string) => problemOf(refusal as Error | null, field);
  const edit =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      key.current = newKey();
      set(value);
    };
  const pay = async (event: FormEvent) => {
    event.preventDefault();
    if (going) return;
    setGoing(true);
    setRefusal(null);
    window.sessionStorage.setItem(`filled-${token}`, JSON.stringify({ name, email, amount, answers }));
    try {
      const { address } = await data(
        api.POST('/api/public/{token}/link/payments', {
          params: { path: { token } },
          body: {
            key: key.current,
            amount,
            currency: p.asks.least.currency,
            name,
            email,
            answers,
            agreed,
            chosen: { way, tip, total: whole?.amount ?? '' },
          },
        }),
      );
      window.location.assign(address);
    } catch (error) {
      setRefusal(error);
      setGoing(false);
      window.setTimeout(() => form.current?.querySelector<HTMLElement>('[aria-invalid]')?.focus());
    }
  };
  // Back from the pay page by the browser's own button: it can be pressed again.
  useEffect(() => {
    const shown = () => setGoing(false);
    window.addEventListener('pageshow', shown);
    return () => window.removeEventListener('pageshow', shown);
  }, []);
  const shownBeside =
    ['amount', 'name', 'email', 'agreed'].some((f) => wrong(f)) ||
    p.fields.some((f) => wrong(`answers.${f.label}`));
  return (
    <form ref={form} onSubmit={(e) => void pay(e)} noValidate>
      {p.takes.test && <OnTrial />}
      {!fixed && (
        <Field
          label={`Amount, from ${money(p.asks.least)} to ${money(p.asks.most)}`}
          inputMode="decimal"
          value={amount}
          wrong={wrong('amount')}
          onChange={(e) => edit(setAmount)(e.target.value)}
        />
      )}
      <Field
        label="Your name"
        autoComplete="name"
        maxLength={120}
        value={name}
        wrong={wrong('name')}
        onChange={(e) => edit(setName)(e.target.value)}
      />
      <Field
        label="Your e-mail address, for the receipt"
        type="email"
        autoComplete="email"
        maxLength={200}
        value={email}
        wrong={wrong('email')}
        onChange={(e) => edit(setEmail)(e.target.value)}
      />
      {p.fields.map((f) => (
        <Field
          key={f.label}
          label={f.label}
          optional={!f.needed}
          maxLength={500}
          value={answers[f.label] ?? ''}
          wrong={wrong(`answers.${f.label}`)}
          onChange={(e) => edit(setAnswers)({ ...answers, [f.label]: e.target.value })}
        />
      ))}
      {p.terms && (
        <>
          <div className="conditions small" tabIndex={0} role="region" aria-label="Conditions">
            {p.terms}
          </div>
          <label className="option" style={{ marginTop: 10 }}>
            <input
              type="checkbox"
              checked={agreed}
              aria-invalid={wrong('agreed') ? true : undefined}
              onChange={(e) => edit(setAgreed)(e.target.checked)}
            />
            I accept these conditions
          </label>
          {wrong('agreed') && (
            <p className="told refused" role="alert">
              Accept the conditions before you pay.
            </p>
          )}
        </>
      )}
      {top?.charges && mayChoose && <ByWhich way={way || 'CARD'} onWay={setWay} />}
      {top && <TipChoice top={top} tip={tip} wrong={wrongTip} onTip={edit(setTip)} />}
      {top && <Together top={top} sum={sum} />}
      {refusal !== null && !shownBeside && (
        <p className="told refused" role="alert">
          {messageOf(refusal)}
        </p>
      )}
      <button type="submit" className="pay" disabled={going || waits || !!wrongTip}>
        {p.takes.test ? 'Try paying' : p.takes.hold ? 'Let it be held' : 'Pay'}
        {whole ? ` ${money(whole)}` : fixed && ` ${money(p.asks.least)}`}{' '}
        {way === 'BANK_DEBIT' ? 'by bank debit' : top?.charges && mayChoose ? 'by card' : p.takes.by}
      </button>
      <CardPageNote
        from={p.from}
        certainOn={p.takes.debitCertainOn}
        wallets={p.takes.wallets}
        hold={p.takes.hold}
      />
    </form>
  );
}

/** The page of a payment link: who asks, for what, how much; then who pays. */
export function LinkPage({ token, payer }: { token: string; payer: string | null }) {
  const [page, setPage] = useState<Page | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  useEffect(() => {
    data(api.GET('/api/public/{token}/link', { params: { path: { token } } })).then(setPage, setFailed);
  }, [token]);
  if (!page) return <NotShown failed={failed} />;
  const p = page;
  const fixed = p.asks.least.amount === p.asks.most.amount;
  return (
    <main className="client">
      <header className="top">
        {p.from.logo ? (
          <img src={`/api/public/${token}/link/logo`} alt={p.from.name} className="logo" />
        ) : (
          <b>{p.from.name}</b>
        )}
        <span className="faded small">{p.from.tagline}</span>
      </header>
      <p className="ask" style={{ marginBottom: 4 }}>
        {p.title}
      </p>
      {payer ? (
        <LinkCame page={p} token={token} payer={payer} />
      ) : (
        <>
          {fixed && <p className="asked">{money(p.asks.least)}</p>}
          {p.taxes.length > 0 && (
            <p className="faded small" style={{ margin: 0 }}>
              {p.taxes.map((t) => (t.amount ? `${money(t.amount)} of ${t.name}` : t.name)).join(' and ')}{' '}
              {p.taxes.length === 1 ? 'is' : 'are'} in it.
            </p>
          )}
          {p.description && <p className="text">{p.description}</p>}
          {p.endsOn && p.state === 'OPEN' && (
            <p className="faded small">It can be paid until {longDate(p.endsOn)}.</p>
          )}
          {over[p.state] ? (
            <p className="told" role="status">
              {over[p.state]} Ask {p.from.name}: <a href={`mailto:${p.from.email}`}>{p.from.email}</a>.
            </p>
          ) : p.takes.by ? (
            <Paying page={p} token={token} />
          ) : (
            <p className="told">
              This cannot be paid by card just now. Please ask {p.from.name}:{' '}
              <a href={`mailto:${p.from.email}`}>{p.from.email}</a>.
            </p>
          )}
        </>
      )}
      <footer className="faded small text" style={{ marginTop: 28 }}>
        {p.from.name}
        {p.from.address && `\n${p.from.address}`}
        {p.from.taxNumber && `\n${p.from.taxNumber}`}
      </footer>
    </main>
  );
}
