import { type FormEvent, useState } from 'react';
import { api, ApiError, data, messageOf, problemOf, type Schemas } from '../api/client';
import { money } from '../design/format';
import { Signature } from './Signature';

type Page = Schemas['QuotePage'];

/** The places of what is ticked, as the server last said. */
export const ticks = (page: Page) => page.options.filter((o) => o.ticked).map((o) => o.place);

/** A name as a signature, or a reason why not, or a question first. */
export function QuoteAnswer({
  page: p,
  waits,
  token,
  onAnswered,
  onStale,
}: {
  page: Page;
  /** Whether the sums are still on their way. */
  waits: boolean;
  token: string;
  onAnswered: (page: Page) => void;
  onStale: () => void;
}) {
  const [name, setName] = useState('');
  const [how, setHow] = useState<'accept' | 'ask' | 'decline'>('accept');
  const [text, setText] = useState('');
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState<unknown>(null);
  const [asked, setAsked] = useState(false);
  const path = { params: { path: { token } } };
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (going) return;
    setGoing(true);
    setRefusal(null);
    try {
      if (how === 'ask') {
        await data(api.POST('/api/public/{token}/quote/questions', { ...path, body: { text } }));
        setAsked(true);
        setText('');
        setHow('accept');
      } else
        onAnswered(
          await data(
            how === 'accept'
              ? api.POST('/api/public/{token}/quote/acceptance', {
                  ...path,
                  body: { name, ticked: ticks(p), seen: p.seal },
                })
              : api.POST('/api/public/{token}/quote/declining', { ...path, body: { reason: text } }),
          ),
        );
    } catch (error) {
      setRefusal(error);
      if (error instanceof ApiError && error.status === 409) onStale();
    } finally {
      setGoing(false);
    }
  };
  const wrong = problemOf(refusal as Error | null, 'name') ?? problemOf(refusal as Error | null, 'text');
  return (
    <form onSubmit={(e) => void send(e)} noValidate>
      {asked && (
        <p className="told" role="status">
          Your question is with {p.document.from.name}. The answer comes to you by e-mail or telephone.
        </p>
      )}
      {how === 'accept' ? (
        <Signature name={name} wrong={wrong} onChange={setName} />
      ) : (
        <label className="sign">
          {how === 'ask' ? 'What would you like to know?' : 'Why not? (may stay empty)'}
          <textarea
            rows={4}
            autoFocus
            maxLength={how === 'ask' ? 2000 : 1000}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      )}
      {Boolean(refusal) && !(how === 'accept' && wrong) && (
        <p className="told refused" role="alert">
          {messageOf(refusal)}
        </p>
      )}
      <button type="submit" className={how === 'decline' ? 'pay decline' : 'pay'} disabled={going || waits}>
        {how === 'accept'
          ? `Accept, for ${money(p.document.sums.total)}`
          : how === 'ask'
            ? 'Send the question'
            : 'Decline the quote'}
      </button>
      <p className="others">
        {how === 'accept' ? (
          <>
            <button type="button" className="link" onClick={() => setHow('ask')}>
              Ask something first
            </button>
            <button type="button" className="link" onClick={() => setHow('decline')}>
              Decline
            </button>
          </>
        ) : (
          <button type="button" className="link" onClick={() => setHow('accept')}>
            Back
          </button>
        )}
      </p>
    </form>
  );
}
