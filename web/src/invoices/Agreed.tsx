import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { agreedOf } from '../api/invoices';
import { DayField } from '../design/DayField';
import { longDate, plain, shortDate } from '../design/format';
import { SendDialog } from '../letters/SendDialog';
import { useLookFirst } from '../letters/useLookFirst';
import { Refusal } from '../design/States';
import css from './Agreed.module.css';
import { Dialog } from '../design/Dialog';

type Milestone = Schemas['MilestoneView'];

/** The day on which the work reached a milestone; then the letter that tells the client. */
function ReachDialog({ milestone, onClose }: { milestone: Milestone; onClose: () => void }) {
  const [on, setOn] = useState<string | null>(null);
  const path = { params: { path: { id: milestone.id } } };
  const letter = useLookFirst((slip) =>
    data(api.POST('/api/milestones/{id}/letter', { ...path, body: { on, slip } })),
  );
  if (letter.ready)
    return (
      <SendDialog
        title={`“${milestone.name}” is reached`}
        action="Mark it and send"
        look={letter.look}
        send={(slip) => data(api.POST('/api/milestones/{id}/reaching', { ...path, body: { on, slip } }))}
        mailOnly
        onBack={letter.back}
        onClose={onClose}
      />
    );
  return (
    <Dialog onClose={onClose} title={`“${milestone.name}” is reached`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          letter.begin();
        }}
      >
        <DayField
          label="Reached on"
          value={on ?? ''}
          onChange={(day) => setOn(day || null)}
          lean="past"
          problem={problemOf(letter.error, 'on')}
        />
        <p className="small faded" style={{ margin: 0 }}>
          What waits for it falls due from that day on. It can be undone until something is paid.
        </p>
        {!problemOf(letter.error, 'on') && <Refusal error={letter.error} />}
        <Button type="submit" loading={letter.isPending}>
          See the letter…
        </Button>
      </form>
    </Dialog>
  );
}

/** Milestones that installments wait for, and what was agreed before. */
export function Agreed({ id }: { id: number }) {
  const agreed = useQuery(agreedOf(id));
  const [reaching, setReaching] = useState<Milestone | null>(null);
  const [undoing, setUndoing] = useState<Milestone | null>(null);
  if (!agreed.data) return null;
  const { milestones, earlier } = agreed.data;
  return (
    <>
      {milestones.length > 0 && (
        <>
          <h2>Milestones</h2>
          <ul className={css.list}>
            {milestones.map((m) => (
              <li key={m.id}>
                {m.name}
                {m.reachedOn ? `, reached ${shortDate(m.reachedOn)} ` : ' '}
                {!m.reachedOn && (
                  <button type="button" className="link" onClick={() => setReaching(m)}>
                    Reached…
                  </button>
                )}
                {m.undoable && (
                  <button type="button" className="link" onClick={() => setUndoing(m)}>
                    Not reached after all…
                  </button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {earlier.length > 0 && (
        <details>
          <summary>What was agreed before</summary>
          <ol className={`${css.list} small`}>
            {earlier.map((e, i) => (
              <li key={`${e.position}-${i}`}>
                Installment {e.position}: {plain(e.amount)}{' '}
                {e.dueOn ? `due ${longDate(e.dueOn)}` : 'without a day'}, until {longDate(e.until)}
              </li>
            ))}
          </ol>
        </details>
      )}
      {undoing && (
        <SendDialog
          title={`“${undoing.name}” is not reached after all`}
          action="Undo it and send"
          look={(slip) =>
            data(
              api.POST('/api/milestones/{id}/undoing/letter', {
                params: { path: { id: undoing.id } },
                body: { on: null, slip },
              }),
            )
          }
          send={(slip) =>
            data(
              api.POST('/api/milestones/{id}/undoing', {
                params: { path: { id: undoing.id } },
                body: { on: null, slip },
              }),
            )
          }
          mailOnly
          onClose={() => setUndoing(null)}
        />
      )}
      {reaching && <ReachDialog milestone={reaching} onClose={() => setReaching(null)} />}
    </>
  );
}
