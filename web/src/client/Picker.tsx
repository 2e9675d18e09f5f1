import { useEffect, useState } from 'react';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { longDate, money, plain } from '../design/format';

type Page = Schemas['PublicPage'];
type Choice = Schemas['PickChoice'];

/** How many monthly installments: each with all its days and sums before it is picked, once. */
export function Picker({
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
  const [choices, setChoices] = useState<Choice[]>([]);
  const [count, setCount] = useState<number | null>(null);
  const [going, setGoing] = useState(false);
  const [refusal, setRefusal] = useState('');
  const open = p.open.amount;
  useEffect(() => {
    data(api.GET('/api/public/{token}/plans', { params: { path: { token } } })).then(setChoices, () =>
      setChoices([]),
    );
  }, [token, open]);
  if (choices.length === 0 || !p.paying.plan.until) return null;
  const chosen = choices.find((c) => c.count === count);
  const pick = async () => {
    if (!chosen) return;
    setGoing(true);
    setRefusal('');
    try {
      onDone(
        await data(
          api.POST('/api/public/{token}/plan', {
            params: { path: { token } },
            body: { count: chosen.count, seen: chosen.sum.amount },
          }),
        ),
      );
    } catch (error) {
      setRefusal(messageOf(error));
      if (error instanceof ApiError && error.status === 409) onStale();
    } finally {
      setGoing(false);
    }
  };
  return (
    <section aria-label="Pay in installments">
      <h2>Or in monthly installments</h2>
      <p className="faded small">
        You can pick until {longDate(p.paying.plan.until)}, once; then they are fixed.
        {p.document.paying.lateFee && ` ${p.document.paying.lateFee}`}
      </p>
      <label className="sign">
        How many
        <select value={count ?? ''} onChange={(e) => setCount(Number(e.target.value) || null)}>
          <option value="">please choose</option>
          {choices.map((c) => (
            <option key={c.count} value={c.count}>
              {c.count} of {c.parts[0] && money(c.parts[0].amount)}
              {c.parts.some((part) => part.amount.amount !== c.parts[0]?.amount.amount)
                ? ', some a little less'
                : ''}
            </option>
          ))}
        </select>
      </label>
      {chosen && (
        <>
          <dl>
            {chosen.parts.map((part) => (
              <div key={part.dueOn}>
                <dt>{longDate(part.dueOn)}</dt>
                <dd>{plain(part.amount)}</dd>
              </div>
            ))}
          </dl>
          <button type="button" className="pay" disabled={going} onClick={() => void pick()}>
            Pick these {chosen.count} installments
          </button>
        </>
      )}
      {refusal && (
        <p className="told refused" role="alert">
          {refusal}
        </p>
      )}
    </section>
  );
}
