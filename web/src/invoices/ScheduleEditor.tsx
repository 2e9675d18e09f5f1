import type { Schemas } from '../api/client';
import { longDate, plain } from '../design/format';
import { type Asked, WhyFigure } from '../design/Why';
import { FieldProblem } from './fields';
import type { Term, Typed } from './useDraft';

/** The installments as agreed: a share and the days after issue. What they come to is the server's. */
export function ScheduleEditor({
  typed,
  change,
  reckoning,
  of,
  onAsk,
}: {
  typed: Typed;
  change: (edit: (before: Typed) => Typed) => void;
  reckoning: Schemas['Reckoning'] | null;
  of: (field: string) => string | undefined;
  onAsk: (asked: Asked) => void;
}) {
  const edit = (place: number, part: Partial<Term>) =>
    change((t) => ({ ...t, schedule: t.schedule.map((s, i) => (i === place ? { ...s, ...part } : s)) }));
  const add = () =>
    change((t) => ({
      ...t,
      schedule: [
        { deposit: true, share: '40%', days: '0' },
        ...t.schedule.map((s) => ({ ...s, deposit: false })),
      ],
    }));
  const remove = (place: number) =>
    change((t) => ({ ...t, schedule: t.schedule.filter((_, i) => i !== place) }));
  return (
    <>
      <table className="lines" style={{ marginTop: 8 }}>
        <thead>
          <tr>
            <th>Share</th>
            <th className="n">Days after issue</th>
            <th>Deposit</th>
            <th>Due</th>
            <th className="n">Amount</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {typed.schedule.map((term, place) => {
            const reckoned = reckoning?.installments.find((i) => i.position === place + 1);
            const share = of(`schedule[${place}].share`);
            const days = of(`schedule[${place}].days`);
            return (
              <tr key={place}>
                <td>
                  <input
                    className="cell"
                    aria-label={`Share of installment ${place + 1}`}
                    aria-invalid={Boolean(share)}
                    value={term.share ?? ''}
                    onChange={(e) => edit(place, { share: e.target.value })}
                  />
                  <FieldProblem text={share} />
                </td>
                <td className="n" style={{ width: 120 }}>
                  <input
                    className="cell"
                    aria-label={`Days after issue of installment ${place + 1}`}
                    aria-invalid={Boolean(days)}
                    inputMode="numeric"
                    value={term.days ?? ''}
                    onChange={(e) => edit(place, { days: e.target.value })}
                  />
                  <FieldProblem text={days} />
                </td>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Installment ${place + 1} is a deposit`}
                    checked={term.deposit}
                    disabled={place > 0}
                    onChange={(e) => edit(place, { deposit: e.target.checked })}
                  />
                </td>
                <td>{reckoned ? longDate(reckoned.dueOn) : ''}</td>
                <td className="n">
                  {reckoned && <WhyFigure text={plain(reckoned.amount)} why={reckoned.why} onAsk={onAsk} />}
                </td>
                <td style={{ width: 16 }}>
                  {typed.schedule.length > 1 && (
                    <button
                      type="button"
                      className="plain faded"
                      aria-label={`Remove installment ${place + 1}`}
                      onClick={() => remove(place)}
                    >
                      ×
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <FieldProblem text={of('schedule')} />
      <p>
        {!typed.schedule.some((s) => s.deposit) && (
          <button type="button" className="link" onClick={add}>
            Ask for a deposit first
          </button>
        )}
        <span className="faded small"> A share is a percentage, an amount, or the word rest.</span>
      </p>
    </>
  );
}
