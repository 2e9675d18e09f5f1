import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { isZero, money } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { Almanac } from './Almanac';

function Sentence({ sentence: s }: { sentence: Schemas['Sentence'] }) {
  const clients = (n: number) => (n === 1 ? 'one client' : `${n} clients`);
  return (
    <p className="sentence">
      {isZero(s.late) ? (
        'Nothing is late. '
      ) : (
        <>
          <b className="late figures">{money(s.late)} is late</b>
          {s.lateClients === 1
            ? ` from ${s.most}. `
            : ` from ${clients(s.lateClients)}, most of it from ${s.most}. `}
        </>
      )}
      {isZero(s.week) ? (
        'Nothing falls due in the next seven days'
      ) : (
        <>
          <b className="figures">{money(s.week)}</b> falls due in the next seven days, from{' '}
          {clients(s.weekClients)}
        </>
      )}
      {isZero(s.open) ? (
        '.'
      ) : (
        <>
          ; <b className="figures">{money(s.open)}</b> is open in all.
        </>
      )}
    </p>
  );
}

function NeedItem({ need }: { need: Schemas['Need'] }) {
  const act = useMutation({
    mutationFn: async (what: 'retry' | 'set-aside' | 'noted') => {
      const path = { params: { path: { id: need.id } } };
      if (what === 'retry') await data(api.POST('/api/messages/{id}/retry', path));
      else if (what === 'set-aside') await data(api.POST('/api/messages/{id}/set-aside', path));
      else await data(api.POST('/api/payments/{id}/noted', path));
    },
  });
  return (
    <li>
      <span className="grow">
        <b>{need.title}</b>
        <br />
        <span className="faded">{need.text}</span>
        <Refusal error={act.error} />
      </span>
      <span className="right">
        {need.invoiceId != null && (
          <Link className="link" to={`/invoices/${need.invoiceId}`}>
            Open
          </Link>
        )}
        {need.kind === 'message' && (
          <>
            <br />
            <button type="button" className="link" onClick={() => act.mutate('retry')}>
              Send it again
            </button>
            <br />
            <button type="button" className="link" onClick={() => act.mutate('set-aside')}>
              Set aside
            </button>
          </>
        )}
        {need.kind === 'payment' && (
          <>
            <br />
            <button type="button" className="link" onClick={() => act.mutate('noted')}>
              Seen
            </button>
          </>
        )}
      </span>
    </li>
  );
}

export function TodayPage() {
  const today = useQuery({ queryKey: ['today'], queryFn: () => data(api.GET('/api/today')) });
  return (
    <Loaded query={today} what="today">
      {(t) => (
        <div className="today">
          <h1 style={{ position: 'absolute', left: -9999 }}>Today</h1>
          <Sentence sentence={t.sentence} />
          <div className="columns">
            <section>
              <div className="part-head">
                <h2>The Almanac</h2>
                <span className="faded small">who owes what, and when · largest late first</span>
              </div>
              {t.lanes.length ? (
                <Almanac today={t.today} from={t.from} to={t.to} lanes={t.lanes} />
              ) : (
                <div className="empty">
                  Here each client gets a lane: what fell due and was paid, what is late, what comes.{' '}
                  <Link to="/invoices/new">Write the first invoice.</Link>
                </div>
              )}
            </section>
            <section>
              <div className="part-head">
                <h2>Needs you</h2>
                <span className="faded small">{t.needs.length || ''}</span>
              </div>
              {t.needs.length ? (
                <ul className="list">
                  {t.needs.map((n) => (
                    <NeedItem key={`${n.kind}-${n.id}`} need={n} />
                  ))}
                </ul>
              ) : (
                <p className="faded">Nothing waits for you.</p>
              )}
            </section>
          </div>
        </div>
      )}
    </Loaded>
  );
}
