import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useId, useRef } from 'react';
import { messageOf, type Schemas } from '../api/client';
import { plain, shortDate } from '../design/format';
import { MeasureFigure, type Part } from '../design/Measure';
import { WhyFigure } from '../design/Why';
import { FieldProblem, isRemoval, onward, type Removed } from './fields';
import { MovableMeasure } from './MovableMeasure';
import css from './MovableMeasure.module.css';
import type { Edit, Edited } from './scheduleEdits';
import type { Term } from './useDraft';

/** When an installment can fall due, for whoever does not know what may be typed. */
const WHENS = [
  'on issue',
  '30',
  'month end + 10',
  'monthly',
  '1 and 15',
  '15 and last',
  'at delivery',
  'no date yet',
];

/** `12x`, or `30/40/30`: several installments at one stroke. */
const SEVERAL = /^(\d{1,6}\s*[x×]|\d{1,3}([.,]\d+)?%?(\s*\/\s*\d{1,3}([.,]\d+)?%?)+)$/i;

const drawn = (installments: Schemas['ReckonedInstallment'][]): Part[] =>
  installments.map((i) => ({ ...i, kind: i.deposit ? 'DEPOSIT' : 'INSTALLMENT', note: i.when }));

/** The installments as agreed: a share, and when. What they come to is the server's. */
export function ScheduleEditor({
  schedule,
  onChange,
  installments,
  edited,
  of,
  onRemoved,
  deposits = true,
}: {
  schedule: Term[];
  /** @param what which field is typed into, so that one step back takes it in one go */
  onChange: (edit: (before: Term[]) => Term[], what?: string) => void;
  installments: Schemas['ReckonedInstallment'][];
  /** Asks the server what a change would make of it. */
  edited: (edit: Edit) => Promise<Edited>;
  of: (field: string) => string | undefined;
  onRemoved: Removed;
  /** Whether the first of them can be a deposit. */
  deposits?: boolean;
}) {
  const whens = useId();
  const edit = (place: number, part: Partial<Term>) =>
    onChange(
      (before) => before.map((s, i) => (i === place ? { ...s, ...part } : s)),
      `schedule[${place}].${Object.keys(part).join()}`,
    );
  const deposit = () =>
    onChange((before) => [
      { deposit: true, share: '40%', days: '0' },
      ...before.map((s) => ({ ...s, deposit: false })),
    ]);
  const latest = useRef(schedule);
  useEffect(() => {
    latest.current = schedule;
  }, [schedule]);
  // What was typed meanwhile is not overwritten: the change is asked for again, of what stands there now.
  const restyle = useMutation({
    mutationFn: async (change: Edit) => ({ of: schedule, became: await edited(change) }),
    onSuccess: ({ of: asked, became }, change) => {
      if (JSON.stringify(asked) === JSON.stringify(latest.current)) onChange(() => became.schedule);
      else if (change.kind !== 'SEVERAL' || latest.current[change.place ?? 0]?.share === change.share)
        restyle.mutate(change);
    },
  });
  // What one more changes is shown before it is taken.
  const more = useMutation({ mutationFn: () => edited({ kind: 'ADD' }) });
  const several = (place: number, share: string) => {
    // Leaving the field and Enter ask for the same; once is enough.
    if (SEVERAL.test(share.trim()) && !restyle.isPending) restyle.mutate({ kind: 'SEVERAL', place, share });
  };
  const remove = (place: number) => {
    onChange((before) => before.filter((_, i) => i !== place));
    onRemoved(`Installment ${place + 1} removed.`);
  };
  const parts = drawn(installments);
  return (
    <>
      {parts.length > 0 && (
        <MeasureFigure
          parts={parts}
          bar={
            parts.length > 1 ? (
              <MovableMeasure
                parts={parts}
                onDivide={(place, thousandths) => restyle.mutate({ kind: 'DIVIDE', place, thousandths })}
                onEqual={() => restyle.mutate({ kind: 'EQUAL' })}
              />
            ) : undefined
          }
        />
      )}
      <table
        className={`lines work schedule ${css.schedule}`}
        title="A share is a percentage, an amount, equal, or rest; 12x makes twelve equal ones, 30/40/30 three by percentages. When takes days after issue, a day such as 15 Apr, monthly, 1 and 15, month end + 10, at and a milestone, or no date yet."
      >
        <thead>
          <tr>
            <th className={css.share}>Share</th>
            <th className={css.when}>When</th>
            {deposits && <th>Deposit</th>}
            <th>Due</th>
            <th className="n">Amount</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {schedule.map((term, place) => {
            const reckoned = installments.find((i) => i.position === place + 1);
            const wrong = of(`schedule[${place}].share`);
            const days = of(`schedule[${place}].days`);
            return (
              <tr
                key={place}
                onKeyDown={(e) => {
                  if (!isRemoval(e) || schedule.length < 2) return;
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
                    onChange={(e) => edit(place, { share: e.target.value })}
                    onBlur={(e) => several(place, e.target.value)}
                    onKeyDown={(e) => {
                      if (e.key === 'Enter' && SEVERAL.test(e.currentTarget.value.trim())) {
                        e.preventDefault();
                        several(place, e.currentTarget.value);
                      } else onward(e);
                    }}
                  />
                  <FieldProblem text={wrong} />
                </td>
                <td data-label="When">
                  <input
                    className="cell"
                    aria-label={`When installment ${place + 1} is due`}
                    list={whens}
                    aria-invalid={Boolean(days)}
                    placeholder="30, 15 Apr, monthly"
                    value={term.days ?? ''}
                    onChange={(e) => edit(place, { days: e.target.value })}
                    onKeyDown={onward}
                  />
                  <FieldProblem text={days} />
                </td>
                {deposits && (
                  <td data-label="Deposit">
                    <input
                      type="checkbox"
                      aria-label={`Installment ${place + 1} is a deposit`}
                      checked={term.deposit}
                      disabled={place > 0}
                      onChange={(e) => edit(place, { deposit: e.target.checked })}
                    />
                  </td>
                )}
                <td data-label="Due" className="figures">
                  {reckoned?.dueOn ? shortDate(reckoned.dueOn) : ''}
                  {reckoned && !reckoned.dueOn && <span className={css.undated}>no day yet</span>}
                </td>
                <td className="n" data-label="Amount">
                  {reckoned && <WhyFigure text={plain(reckoned.amount)} why={reckoned.why} />}
                </td>
                <td className="off" style={{ width: 16 }}>
                  {schedule.length > 1 && (
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
      <datalist id={whens}>
        {WHENS.map((w) => (
          <option key={w} value={w} />
        ))}
      </datalist>
      <FieldProblem text={of('schedule')} />
      <FieldProblem
        text={restyle.error ? messageOf(restyle.error) : more.error ? messageOf(more.error) : undefined}
      />
      {more.data && (
        <div className={css.more} role="group" aria-label="With one more">
          <p>With one more installment:</p>
          <MeasureFigure parts={drawn(more.data.installments)} />
          <div className={css.acts}>
            <Button
              size="xs"
              autoFocus
              onClick={() => {
                const became = more.data.schedule;
                onChange(() => became);
                more.reset();
              }}
            >
              Add it
            </Button>
            <button type="button" className="link" onClick={() => more.reset()}>
              Leave it as it is
            </button>
          </div>
        </div>
      )}
      <p className="adding">
        <button type="button" className="link" onClick={() => more.mutate()}>
          + Installment
        </button>
        {schedule.length > 1 && (
          <button type="button" className="link" onClick={() => restyle.mutate({ kind: 'EQUAL' })}>
            Make equal
          </button>
        )}
        {deposits && !schedule.some((s) => s.deposit) && (
          <button type="button" className="link" onClick={deposit}>
            Ask for a deposit first
          </button>
        )}
      </p>
    </>
  );
}
