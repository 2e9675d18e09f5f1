import { Button, Menu } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { money, plain } from '../design/format';
import css from './Sheet.module.css';
import type { Keeping } from './useDraft';

function Figure({ name, value, wide }: { name: string; value: string | null | undefined; wide?: boolean }) {
  return (
    <span className={`figure ${wide ? css.wide : ''}`} data-testid={`foot-${name}`}>
      <small>{name}</small>
      <b>{value || '–'}</b>
    </span>
  );
}

/** What the sheet comes to, what is missing before it can go, and where it goes. */
export function SheetFoot({
  reckoning: r,
  keeping,
  removed,
  missing,
  issuing,
  sending,
  deleteWords,
  children,
  onUndo,
  onLook,
  onIssue,
  onSend,
  onDelete,
}: {
  reckoning: Schemas['Reckoning'] | null;
  keeping: Keeping;
  /** What was taken off the sheet last, in words; empty where nothing was. */
  removed: string;
  missing: { words: string; focus: () => void }[];
  issuing: boolean;
  sending: boolean;
  deleteWords: string;
  children: ReactNode;
  onUndo: () => void;
  /** Null where there is nothing to look at beforehand. */
  onLook: (() => void) | null;
  onIssue: () => void;
  onSend: () => void;
  onDelete: () => void;
}) {
  const sums = r?.sums;
  const first = r?.installments[0];
  return (
    <div className={`foot ${css.foot}`}>
      {missing.length > 0 && (
        <p className={css.missing}>
          Before it can be sent:{' '}
          {missing.map((m, i) => (
            <span key={m.words}>
              {i > 0 && ', '}
              <button type="button" onClick={m.focus}>
                {m.words}
              </button>
            </span>
          ))}
        </p>
      )}
      <Figure name="Net" value={sums?.net && plain(sums.net)} wide />
      <Figure name="Tax" value={sums?.tax && plain(sums.tax)} wide />
      <Figure name="Total" value={sums?.total && money(sums.total)} />
      {sums?.due && (sums.prepaid || sums.rounding) && <Figure name="To be paid" value={plain(sums.due)} />}
      <Figure name="First due" value={first && plain(first.amount)} wide />
      <span className={css.keeping}>
        {removed && (
          <span className="small" role="status">
            {removed}{' '}
            <button type="button" className="link" onClick={onUndo}>
              Bring it back <kbd>Ctrl Z</kbd>
            </button>
          </span>
        )}
        <span className={keeping.state === 'failed' ? 'late small' : 'faded small'} role="status">
          {keeping.text}
        </span>
      </span>
      <div className={css.acts}>
        <Menu position="top-end" withinPortal>
          <Menu.Target>
            <Button variant="outline">More</Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={onIssue}>Issue only, without sending</Menu.Item>
            <Menu.Item onClick={onDelete}>{deleteWords}</Menu.Item>
          </Menu.Dropdown>
        </Menu>
        {onLook && (
          <Button variant="outline" onClick={onLook}>
            As the client
          </Button>
        )}
        <Button loading={sending || issuing} onClick={onSend}>
          Issue and send…
        </Button>
      </div>
      {children}
    </div>
  );
}
