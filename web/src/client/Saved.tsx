import { useCallback, useEffect, useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { longDate, money } from '../design/format';

export type OnPage = Schemas['SavedOnPage'];
export type Keep = Schemas['TypedKeep'];

/** What is kept of the client, and planned. @param stamp asked for again where it changes */
export function useSaved(token: string | null, stamp: string) {
  const [saved, setSaved] = useState<OnPage | null>(null);
  useEffect(() => {
    let here = true;
    if (token)
      data(api.GET('/api/public/{token}/saved', { params: { path: { token } } })).then(
        (answer) => here && setSaved(answer),
        () => {},
      );
    return () => {
      here = false;
    };
  }, [token, stamp]);
  return [saved, setSaved] as const;
}

/** Whether what pays is kept for later, and what for. */
export function KeepTicks({
  from,
  keep,
  wrong,
  onChange,
}: {
  from: string;
  /** Null for not. */
  keep: Keep | null;
  /** What is wrong with the limit. */
  wrong?: string | undefined;
  onChange: (keep: Keep | null) => void;
}) {
  return (
    <>
      <label className="option">
        <input
          type="checkbox"
          checked={keep !== null}
          onChange={(e) => onChange(e.target.checked ? { collects: false, most: '' } : null)}
        />
        <span>
          Keep this card or account for next time
          <span className="under small faded">
            The card company keeps the number. Nothing is taken from it unless you say so.
          </span>
        </span>
      </label>
      {keep && <MayCollect from={from} keep={keep} wrong={wrong} onChange={onChange} />}
    </>
  );
}

/** Whether the business may take open sums from what is kept, and how much at a time. */
export function MayCollect({
  from,
  keep,
  wrong,
  onChange,
}: {
  from: string;
  keep: Keep;
  wrong?: string | undefined;
  onChange: (keep: Keep) => void;
}) {
  return (
    <>
      <label className="option">
        <input
          type="checkbox"
          checked={keep.collects ?? false}
          onChange={(e) => onChange({ ...keep, collects: e.target.checked })}
        />
        <span>{from} may take open sums of my invoices from it</span>
      </label>
      {keep.collects && (
        <label className="sign">
          So much at a time, at most (empty for every open sum)
          <input
            type="text"
            inputMode="decimal"
            aria-invalid={wrong ? true : undefined}
            value={keep.most ?? ''}
            onChange={(e) => onChange({ ...keep, most: e.target.value })}
          />
          {wrong && (
            <span className="told refused" role="alert">
              {wrong}
            </span>
          )}
        </label>
      )}
    </>
  );
}

/** From what is paid: something that is kept, or what is typed on the card company's page. */
export function FromWhat({
  methods,
  chosen,
  onChoose,
}: {
  methods: OnPage['methods'];
  /** Null for what is typed. */
  chosen: number | null;
  onChoose: (id: number | null) => void;
}) {
  return (
    <fieldset aria-label="From what to pay">
      {methods.map((m) => (
        <label key={m.id} className="choice">
          <input
            type="radio"
            name="from"
            disabled={m.expired}
            checked={chosen === m.id}
            onChange={() => onChoose(m.id)}
          />
          <span>
            {m.words}
            <span className="under small faded">
              {m.expired
                ? `expired, ${m.validUntil}`
                : m.validUntil
                  ? `kept, valid until ${m.validUntil}`
                  : 'kept'}
            </span>
          </span>
        </label>
      ))}
      <label className="choice">
        <input type="radio" name="from" checked={chosen === null} onChange={() => onChoose(null)} />
        Another card or account
      </label>
    </fieldset>
  );
}

/** What is planned for a day, and can be taken back until the day before. */
export function Planned({
  saved,
  token,
  onSaved,
  onStale,
}: {
  saved: OnPage;
  token: string;
  onSaved: (saved: OnPage) => void;
  onStale: () => void;
}) {
  const [refusal, setRefusal] = useState('');
  const back = async (id: number) => {
    setRefusal('');
    try {
      onSaved(await data(api.DELETE('/api/public/{token}/plans/{id}', { params: { path: { token, id } } })));
    } catch (error) {
      setRefusal(messageOf(error));
    }
    onStale();
  };
  return (
    <>
      {saved.planned.map((p) => (
        <p key={p.id} className="told" role="status">
          {money(p.amount)} is taken on {longDate(p.on)} from {p.from}, as you planned.{' '}
          {p.canBeTakenBack && (
            <button type="button" className="text-button" onClick={() => void back(p.id)}>
              Take it back
            </button>
          )}
        </p>
      ))}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
    </>
  );
}

/** What is kept of the client: seen, and removed. */
export function KeptHere({
  saved,
  from,
  token,
  onSaved,
}: {
  saved: OnPage;
  from: string;
  token: string;
  onSaved: (saved: OnPage) => void;
}) {
  const [asked, setAsked] = useState<number | null>(null);
  const [refusal, setRefusal] = useState('');
  const remove = useCallback(
    async (id: number) => {
      setRefusal('');
      try {
        onSaved(
          await data(api.DELETE('/api/public/{token}/saved/{id}', { params: { path: { token, id } } })),
        );
        setAsked(null);
      } catch (error) {
        setRefusal(error instanceof ApiError ? messageOf(error) : 'That did not arrive. Try again.');
      }
    },
    [token, onSaved],
  );
  if (saved.methods.length === 0) return null;
  return (
    <section aria-label="Kept for later">
      <h2>Kept for later</h2>
      {saved.methods.map((m) => (
        <div key={m.id} className="kept">
          <div>
            <b>{m.words}</b>
            {m.validUntil && <span className="faded"> valid until {m.validUntil}</span>}
            <span className="under small faded">{m.agreed}</span>
          </div>
          {asked === m.id ? (
            <p role="status" style={{ margin: '6px 0' }}>
              {from} cannot use it any more then
              {saved.planned.some((p) => p.from === m.words) &&
                ', and what is planned from it is not taken'}.{' '}
              <button type="button" className="text-button" autoFocus onClick={() => void remove(m.id)}>
                Yes, remove it
              </button>{' '}
              <button type="button" className="text-button" onClick={() => setAsked(null)}>
                No
              </button>
            </p>
          ) : (
            <button type="button" className="text-button" onClick={() => setAsked(m.id)}>
              Remove
            </button>
          )}
        </div>
      ))}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
    </section>
  );
}
