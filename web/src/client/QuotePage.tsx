import { useCallback, useEffect, useRef, useState } from 'react';
import { api, data, messageOf, type Schemas } from '../api/client';
import { longDate, money, plain, shortDate } from '../design/format';
import { MeasureFigure } from '../design/Measure';
import { Ahead } from './Ahead';
import { NotShown } from './NotShown';
import { QuoteAnswer, ticks } from './QuoteAnswer';
import { SumRows } from './SumRows';
import { useNews } from './useNews';
import { useSaid } from './useSaid';

type Page = Schemas['QuotePage'];

const fullDate = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  timeZone: 'UTC',
});

/** The quote's data, with what is ticked: the server reckons each choice anew. */
function useQuote(token: string) {
  const [page, setPage] = useState<Page | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  const latest = useRef(0);
  const load = useCallback(
    async (ticked: number[] | null) => {
      const mine = ++latest.current;
      try {
        const answer = await data(
          api.GET('/api/public/{token}/quote', {
            params: { path: { token }, query: ticked ? { ticked: ticked.join(',') } : {} },
          }),
        );
        if (mine !== latest.current) return;
        setPage(answer);
        setFailed(null);
      } catch (error) {
        if (mine === latest.current) setFailed(error);
      }
    },
    [token],
  );
  const [said, setSaid] = useState('');
  useEffect(() => {
    const back = new URLSearchParams(window.location.search).has('back');
    if (!back) return void load(null);
    window.history.replaceState(null, '', window.location.pathname);
    data(api.POST('/api/public/{token}/quote/back', { params: { path: { token } } })).then(
      (answer) => {
        setPage(answer.page);
        setSaid(
          answer.outcome === 'NOT_PAID'
            ? `Nothing was paid${answer.declined ? `: ${answer.declined}` : ''}. You can try again.`
            : answer.outcome === 'UNKNOWN'
              ? 'The card company has not answered yet; this page will say when the payment has come.'
              : '',
        );
      },
      () => void load(null),
    );
  }, [token, load]);
  // What its client ticks is not taken away by news; once it is accepted, money comes.
  const accepted = page?.state === 'accepted';
  useNews(
    token,
    accepted,
    useCallback(() => void load(null), [load]),
  );
  return { page, failed, load, setPage, said };
}

function Ask({ page: p }: { page: Page }) {
  const d = p.document;
  const what = d.matter.subject;
  const total = <b>{money(d.sums.total)}</b>;
  if (p.state === 'accepted' && p.answer)
    return (
      <p className="ask">
        {d.to.name}, {what || 'this offer'} is agreed: {total}.
      </p>
    );
  return (
    <p className="ask">
      {d.to.name}, this is what {what || 'it'} would come to: {total}.
    </p>
  );
}

/** How it stands where it cannot be accepted, or was. */
function Stands({ page: p, token }: { page: Page; token: string }) {
  const d = p.document;
  const whom = (
    <>
      {d.from.name}: <a href={`mailto:${d.from.email}`}>{d.from.email}</a>
    </>
  );
  const place = useSaid(p.answer?.name ?? '');
  if (p.answer)
    return (
      <p className="told" role="status" tabIndex={-1} ref={place}>
        {p.answer.accepted ? 'Accepted' : 'Declined'} on {longDate(p.answer.on)}, {p.answer.at}, by{' '}
        {p.answer.name}.{' '}
        {p.answer.accepted && <a href={`/api/public/${token}/quote/pdf`}>The record of it, as PDF</a>}
      </p>
    );
  if (p.state === 'expired')
    return (
      <p className="told refused" role="status">
        It held until {longDate(p.validUntil)} and cannot be accepted any more. For a new one please ask{' '}
        {whom}.
      </p>
    );
  if (p.state === 'void')
    return (
      <p className="told refused" role="status">
        This quote was withdrawn. If you have a question, please ask {whom}.
      </p>
    );
  return (
    <p className="faded small">It holds until {fullDate.format(new Date(`${p.validUntil}T00:00:00Z`))}.</p>
  );
}

function Lines({
  page: p,
  ticked,
  onTick,
}: {
  page: Page;
  /** What is ticked on screen; its sums may still be on their way. */
  ticked: number[];
  onTick: (places: number[]) => void;
}) {
  const d = p.document;
  const open = p.state === 'open';
  return (
    <dl>
      {p.lines.map((l, i) => (
        <div key={`${i}-${l.description}`}>
          <dt>
            {l.description}
            {d.look.lineShows !== 'amount' && l.quantity !== '1' && (
              <span className="faded small">
                {' '}
                {l.quantity} {l.unit} × {plain({ amount: l.unitPrice })}
              </span>
            )}
            {l.note && <span className="under small faded pre">{l.note}</span>}
          </dt>
          <dd>{plain(l.sums.net)}</dd>
        </div>
      ))}
      {p.options
        .filter((o) => open || o.ticked)
        .map((o) => (
          <div key={o.place} className={ticked.includes(o.place) ? '' : 'faded'}>
            <dt>
              {open ? (
                <label className="option">
                  <input
                    type="checkbox"
                    checked={ticked.includes(o.place)}
                    onChange={(e) =>
                      onTick(
                        e.target.checked ? [...ticked, o.place] : ticked.filter((place) => place !== o.place),
                      )
                    }
                  />
                  <span>
                    {o.description}
                    <span className="under small faded">if you like</span>
                  </span>
                </label>
              ) : (
                o.description
              )}
            </dt>
            <dd>{plain(o.net)}</dd>
          </div>
        ))}
      <SumRows document={d} />
    </dl>
  );
}

/** What one client sees of a quote: what for, how much, until when; then the lines, the terms, and the answer. */
export function QuotePage({ token }: { token: string }) {
  const { page: p, failed, load, setPage, said } = useQuote(token);
  const [wanted, setWanted] = useState<number[] | null>(null);
  if (!p) return <NotShown failed={failed} />;
  const d = p.document;
  // A tick stands at once; what it comes to is the server's.
  const tick = async (places: number[]) => {
    setWanted(places);
    await load(places);
    setWanted((now) => (now === places ? null : now));
  };
  return (
    <main className="client">
      <header className="top">
        {d.look.logo ? (
          <img src={`/api/public/${token}/quote/logo`} alt={d.from.name} className="logo" />
        ) : (
          <b>{d.from.name}</b>
        )}
        <span className="faded">Quote {d.number}</span>
      </header>
      <h1 style={{ position: 'absolute', left: -9999 }}>
        Quote {d.number} from {d.from.name}
      </h1>
      <Ask page={p} />
      <Stands page={p} token={token} />
      {said && (
        <p className="told refused" role="status">
          {said}
        </p>
      )}
      {p.ahead && <Ahead page={p} ahead={p.ahead} token={token} onStale={() => void load(null)} />}
      {Boolean(failed) && (
        <p className="told refused" role="alert">
          {messageOf(failed)}
        </p>
      )}
      {p.changed.length > 0 && (
        <div className="told" role="status">
          It takes the place of an earlier version:
          <ul>
            {p.changed.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      )}
      {p.files.length > 0 && (
        <p>
          {p.files.length === 1 ? 'This belongs to it: ' : 'These belong to it: '}
          {p.files.map((f, i) => (
            <span key={f.id}>
              {i > 0 && ', '}
              <a href={`/api/public/${token}/quote/files/${f.id}`}>{f.name}</a>
            </span>
          ))}
        </p>
      )}
      <h2>What it is for</h2>
      <Lines page={p} ticked={wanted ?? ticks(p)} onTick={(places) => void tick(places)} />
      {p.measure.length > 0 && (
        <>
          <h2>How it is to be paid</h2>
          <MeasureFigure parts={p.measure} />
        </>
      )}
      {d.paying.lateFee && <p className="faded small">{d.paying.lateFee}</p>}
      {p.conditions && (
        <>
          <h2>Terms and conditions</h2>
          {/* Made safe by the server before it was kept. */}
          <div className="conditions small" dangerouslySetInnerHTML={{ __html: p.conditions }} />
        </>
      )}
      {d.matter.notes && <p className="pre">{d.matter.notes}</p>}
      {p.state === 'open' ? (
        <QuoteAnswer
          page={p}
          waits={wanted !== null}
          token={token}
          onAnswered={setPage}
          onStale={() => void load(ticks(p))}
        />
      ) : null}
      <p>
        <a href={`/api/public/${token}/quote/pdf`}>
          {p.answer?.accepted ? 'Save the record as PDF' : 'Save as PDF'}
        </a>
        <span className="faded small"> · issued {shortDate(d.issuedOn)}</span>
      </p>
    </main>
  );
}
