import type { Schemas } from '../api/client';
import { plain, shortDate } from '../design/format';
import { WhyFigure } from '../design/Why';
import { type Change, FieldProblem, isRemoval, onward, type Removed } from './fields';
import type { Term, Typed } from './useDraft';

/** So many months of thirty days after what was typed; a date is taken as it stands, to be typed over. */
function later(days: string | null | undefined, months: number): string {
  const typed = (days ?? '').trim();
  return /^\d{1,4}$/.test(typed) ? String(Number(typed) + 30 * months) : months ? '' : typed;
}

/** The installments as agreed: a share, and the days after issue or a date. What they come to is the server's. */
export function ScheduleEditor({
  typed,
  change,
  reckoning,
  of,
  onRemoved,
}: {
  typed: Typed;
  change: Change;
  reckoning: Schemas['Reckoning'] | null;
  of: (field: string) => string | undefined;
  onRemoved: Removed;
}) {
  const edit = (place: number, part: Partial<Term>) =>
    change(
      (t) => ({ ...t, schedule: t.schedule.map((s, i) => (i === place ? { ...s, ...part } : s)) }),
      `schedule[${place}].${Object.keys(part).join()}`,
    );
  const deposit = () =>
    change((t) => ({
      ...t,
      schedule: [
        { deposit: true, share: '40%', days: '0' },
        ...t.schedule.map((s) => ({ ...s, deposit: false })),
      ],
    }));
  // One more, a month after the last; the one that took the rest shares it equally with the new one.
  const add = () =>
    change((t) => ({
      ...t,
      schedule: [
        ...t.schedule.map((s) => (s.share === 'rest' ? { ...s, share: 'equal' } : s)),
        { deposit: false, share: 'equal', days: later(t.schedule.at(-1)?.days, 1) },
      ],
    }));
  /** `3x` is three equal parts, a month apart, in the place of this one. */
  const share = (place: number, text: string) => {
    const times = /^(\d{1,2})\s*[x×]$/i.exec(text.trim());
    const count = Number(times?.[1] ?? 0);
    if (count < 2 || count > 60) return edit(place, { share: text });
    change((t) => ({
      ...t,
      schedule: t.schedule.flatMap((s, i) =>
        i === place
          ? Array.from({ length: count }, (_, n) => ({ ...s, share: 'equal', days: later(s.days, n) }))
          : [s],
      ),
    }));
  };
  const remove = (place: number) => {
    change((t) => ({ ...t, schedule: t.schedule.filter((_, i) => i !== place) }));
    onRemoved(`Installment ${place + 1} removed.`);
  };
  return (
    <>
      <table
        className="lines work schedule"
        style={{ marginTop: 8 }}
        title="A share is a percentage, an amount, equal, or rest; 3x makes three equal ones. When takes days after issue or a date, such as 15 Apr."
      >
        <thead>
          <tr>
            <th>Share</th>
            <th className="n">When</th>
            <th>Deposit</th>
            <th>Due</th>
            <th className="n">Amount</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {typed.schedule.map((term, place) => {
            const reckoned = reckoning?.installments.find((i) => i.position === place + 1);
            const wrong = of(`schedule[${place}].share`);
            const days = of(`schedule[${place}].days`);
            return (
              <tr
                key={place}
                onKeyDown={(e) => {
                  if (!isRemoval(e) || typed.schedule.length < 2) return;
                  e.preventDefault();
                  remove(place);
                }}
              >
                <td data-label="Share">
                  <input
                    className="cell"
                    aria-label={`Share of installment ${place + 1}`}
                    aria-invalid={Boolean(wrong)}
                    value={term.share ?? ''}
                    onChange={(e) => share(place, e.target.value)}
                    onKeyDown={onward}
                  />
                  <FieldProblem text={wrong} />
                </td>
                <td className="n" data-label="When" style={{ width: 92 }}>
                  <input
                    className="cell"
                    aria-label={`When installment ${place + 1} is due, in days after issue or as a date`}
                    aria-invalid={Boolean(days)}
                    placeholder="30, or 15 Apr"
                    value={term.days ?? ''}
                    onChange={(e) => edit(place, { days: e.target.value })}
                    onKeyDown={onward}
                  />
                  <FieldProblem text={days} />
                </td>
                <td data-label="Deposit">
                  <input
                    type="checkbox"
                    aria-label={`Installment ${place + 1} is a deposit`}
                    checked={term.deposit}
                    disabled={place > 0}
                    onChange={(e) => edit(place, { deposit: e.target.checked })}
                  />
                </td>
                <td data-label="Due" className="figures">
                  {reckoned ? shortDate(reckoned.dueOn) : ''}
                </td>
                <td className="n" data-label="Amount">
                  {reckoned && <WhyFigure text={plain(reckoned.amount)} why={reckoned.why} />}
                </td>
                <td className="off" style={{ width: 16 }}>
                  {typed.schedule.length > 1 && (
                    <button
                      type="button"
                      className="plain faded"
                      tabIndex={-1}
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
      <p className="adding">
        <button type="button" className="link" onClick={add}>
          + Installment
        </button>
        {!typed.schedule.some((s) => s.deposit) && (
          <button type="button" className="link" onClick={deposit}>
            Ask for a deposit first
          </button>
        )}
      </p>
    </>
  );
}
