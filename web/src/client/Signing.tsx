import { type FormEvent, useState } from 'react';
import { api, ApiError, data, messageOf, problemOf, type Schemas } from '../api/client';
import { Signature } from './Signature';

type Page = Schemas['PublicPage'];

/** A name as a signature under an invoice whose text and files are accepted before anything is picked or paid. */
export function Signing({
  page: p,
  token,
  onDone,
  onStale,
}: {
  page: Page;
  token: string;
  onDone: (page: Page) => void;
  onStale: () => void;
}) {
  const [name, setName] = useState('');
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState<unknown>(null);
  const acceptance = p.paying.plan.acceptance;
  if (!acceptance) return null;
  const wrong = problemOf(refusal as Error | null, 'name');
  const sign = async (event: FormEvent) => {
    event.preventDefault();
    setGoing(true);
    setRefusal(null);
    try {
      onDone(
        await data(
          api.POST('/api/public/{token}/acceptance', {
            params: { path: { token } },
            body: { name, seen: acceptance.seal },
          }),
        ),
      );
    } catch (error) {
      setRefusal(error);
      if (error instanceof ApiError && error.status === 409) onStale();
    } finally {
      setGoing(false);
    }
  };
  return (
    <form onSubmit={(e) => void sign(e)} noValidate>
      <h2>Please accept it first</h2>
      <p>
        What stands on this page is accepted before anything is paid
        {p.files.length > 0 && (
          <>
            , with{' '}
            {p.files.map((f, i) => (
              <span key={f.id}>
                {i > 0 && ', '}
                <a href={`/api/public/${token}/files/${f.id}`}>{f.name}</a>
              </span>
            ))}
          </>
        )}
        .
      </p>
      <Signature name={name} wrong={wrong} onChange={setName} />
      {Boolean(refusal) && !wrong && (
        <p className="told refused" role="alert">
          {messageOf(refusal)}
        </p>
      )}
      <button type="submit" className="pay" disabled={going}>
        Accept
      </button>
    </form>
  );
}
