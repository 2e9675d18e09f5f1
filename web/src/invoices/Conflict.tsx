import { Button } from '@mantine/core';
import { useNavigate } from 'react-router';
import css from './Sheet.module.css';
import type { Desk } from './desk';
import { forget } from './remembered';
import type { Other, Typed } from './useDraft';
import { Dialog } from '../design/Dialog';

const simple: [keyof Typed, string][] = [
  ['subject', 'For'],
  ['supplyDate', 'Supplied on'],
  ['supplyEnd', 'Until'],
  ['reference', 'Their order'],
  ['project', 'Project'],
  ['currency', 'Currency'],
  ['rate', 'Rate'],
  ['prepaid', 'Deposit already paid'],
  ['notes', 'Note to the client'],
  ['terms', 'Terms'],
  ['memo', 'Private note'],
];

const text = (value: unknown) => (value === null || value === undefined ? '' : String(value));
const lines = (t: Typed) =>
  t.lines
    .filter((l) => l.description || l.quantity || l.unitPrice)
    .map((l) =>
      [l.description, `${l.quantity} ${l.unit}`.trim(), l.unitPrice, l.discount, l.note]
        .filter(Boolean)
        .join(' · '),
    )
    .join('\n');
const extras = (t: Typed) =>
  [...t.discounts, ...t.charges].map((e) => `${e.description} ${e.amount}`).join('\n');
const schedule = (t: Typed) =>
  t.schedule.map((s) => `${s.deposit ? 'deposit ' : ''}${s.share} · ${s.days}`).join('\n');

/** Where two texts of one draft differ, in words. */
function differences(mine: Typed, theirs: Typed): [string, string, string][] {
  const all: [string, string, string][] = [
    ['Client', text(mine.clientId), text(theirs.clientId)],
    ...simple.map(([field, words]): [string, string, string] => [
      words,
      text(mine[field]),
      text(theirs[field]),
    ]),
    ['Lines', lines(mine), lines(theirs)],
    ['Discounts, charges', extras(mine), extras(theirs)],
    ['To be paid', schedule(mine), schedule(theirs)],
    ['Holds until', mine.offer?.validUntil ?? '', theirs.offer?.validUntil ?? ''],
    ['Terms and conditions', mine.offer?.conditions ?? '', theirs.offer?.conditions ?? ''],
    ['Own fields', Object.values(mine.fields).join('\n'), Object.values(theirs.fields).join('\n')],
  ];
  return all
    .filter(([, a, b]) => a !== b)
    .map(([words, a, b]) =>
      words === 'Client' ? [words, 'another client', 'another client'] : [words, a, b],
    );
}

/** Another window kept something else: both texts are shown, and nothing of either is lost. */
export function Conflict({
  desk,
  mine,
  other,
  onMine,
  onTheirs,
}: {
  desk: Desk;
  mine: Typed;
  other: Other;
  onMine: () => void;
  onTheirs: () => void;
}) {
  const navigate = useNavigate();
  const { theirs } = other;
  const asNew = async () => {
    const kept = await desk.begin(mine, false);
    forget(`new-${desk.kind}`);
    void navigate(`${desk.place}/${kept.id}`, { replace: true });
  };
  const found = theirs ? differences(mine, theirs) : [];
  return (
    <Dialog
      onClose={() => undefined}
      withCloseButton={false}
      closeOnEscape={false}
      size="xl"
      title={
        theirs ? 'This draft was changed in another window' : 'This invoice was issued in another window'
      }
    >
      {theirs ? (
        <>
          <p style={{ marginTop: 0 }}>
            Nothing is lost. Say which text goes on; undoing brings the other back.
          </p>
          <table className={css.differs}>
            <thead>
              <tr>
                <th />
                <th>Here</th>
                <th>The other window</th>
              </tr>
            </thead>
            <tbody>
              {found.map(([words, a, b]) => (
                <tr key={words}>
                  <th scope="row">{words}</th>
                  <td>{a || '–'}</td>
                  <td>{b || '–'}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {found.length === 0 && <p>Both say the same in all that is printed.</p>}
          <p className={css.acts}>
            <Button variant="outline" onClick={onTheirs}>
              Take the other
            </Button>
            <Button onClick={onMine} data-autofocus>
              Keep mine
            </Button>
          </p>
        </>
      ) : (
        <>
          <p style={{ marginTop: 0 }}>
            It is fixed now. What was typed here since can go on as a draft of its own.
          </p>
          <p className={css.acts}>
            <Button variant="outline" onClick={() => window.location.reload()}>
              Open the invoice
            </Button>
            <Button onClick={() => void asNew()} data-autofocus>
              Keep mine as a new draft
            </Button>
          </p>
        </>
      )}
    </Dialog>
  );
}
