import { Menu } from '@mantine/core';
import { type ClipboardEvent, type DragEvent, type KeyboardEvent, useRef } from 'react';
import type { Schemas } from '../api/client';
import { plain } from '../design/format';
import { WhyFigure } from '../design/Why';
import { FieldProblem, isBlank, Understood } from './fields';
import { focusCell } from './focusCell';
import css from './Sheet.module.css';
import { TaxCell } from './TaxCell';
import type { Line } from './useDraft';
import { type Choice, WhatCell } from './WhatCell';

const names = { quantity: 'Quantity', unitPrice: 'Price', discount: 'Less' } as const;
type Column = keyof typeof names;
const columns = ['quantity', 'unitPrice', 'discount'] as const;

/** A quantity is written with its unit, in one place: 90 km. */
const withUnit = (line: Line) => [line.quantity, line.unit].filter(Boolean).join(' ');

/** What can be done with one line, and what is known of it. */
export interface LineProps {
  /** Whether it can be left to the client's choice. */
  choices: boolean;
  line: Line;
  place: number;
  last: boolean;
  currency: string;
  reckoning: Schemas['Reckoning'] | null;
  taxes: Schemas['TaxView'][];
  whyTax: string;
  of: (field: string) => string | undefined;
  onEdit: (part: Partial<Line>, what: string) => void;
  onChoose: (choice: Choice) => void;
  onPaste: (event: ClipboardEvent) => void;
  onKey: (column: string) => (event: KeyboardEvent) => void;
  onMove: (to: number) => void;
  onRemove: () => void;
  onKeepAsItem: () => void;
}

function What(p: LineProps & { onFocus?: () => void }) {
  const { line, place, of } = p;
  const problem = of(`lines[${place}].description`);
  return (
    <>
      <WhatCell
        place={place}
        value={line.description ?? ''}
        own={line.item !== null}
        currency={p.currency}
        hint={p.last ? 'Next line: type, or paste rows' : ''}
        invalid={Boolean(problem)}
        onText={(description) => p.onEdit({ description }, 'description')}
        onChoose={p.onChoose}
        onPaste={p.onPaste}
        onKeyDown={p.onKey('description')}
        {...(p.onFocus ? { onFocus: p.onFocus } : {})}
      />
      {line.choice && (
        <label className={css.choice}>
          <input
            type="checkbox"
            checked={line.choice === 'ticked'}
            onChange={(e) => p.onEdit({ choice: e.target.checked ? 'ticked' : 'unticked' }, 'choice')}
          />
          if the client likes; ticked to begin with
        </label>
      )}
      {line.serial !== null && (
        <label className={css.under}>
          <span>Serial number</span>
          <input
            className="cell"
            data-cell={`${place}-serial`}
            aria-label={`Serial number, line ${place + 1}`}
            value={line.serial}
            onChange={(e) => p.onEdit({ serial: e.target.value }, 'serial')}
            onKeyDown={p.onKey('serial')}
          />
        </label>
      )}
      {line.category !== null && (
        <label className={css.under}>
          <span>Income category</span>
          <input
            className="cell"
            list="income-categories"
            data-cell={`${place}-category`}
            aria-label={`Income category, line ${place + 1}`}
            placeholder="for your books alone"
            value={line.category}
            onChange={(e) => p.onEdit({ category: e.target.value }, 'category')}
            onKeyDown={p.onKey('category')}
          />
        </label>
      )}
      {line.note !== null && (
        <textarea
          className={`cell grows ${css.note}`}
          rows={1}
          data-cell={`${place}-note`}
          aria-label={`Note under line ${place + 1}`}
          placeholder="a note under this line"
          value={line.note}
          onChange={(e) => p.onEdit({ note: e.target.value }, 'note')}
        />
      )}
      <FieldProblem
        text={
          problem ??
          of(`lines[${place}].note`) ??
          of(`lines[${place}].serial`) ??
          of(`lines[${place}].category`)
        }
        id={`line-${place}-description`}
      />
    </>
  );
}

function NumberCell({ column, ...p }: LineProps & { column: Column }) {
  const { line, place, of } = p;
  const field = `lines[${place}].${column}`;
  const problem = of(field);
  const id = `line-${place}-${column}`;
  return (
    <>
      <input
        className="cell"
        data-cell={`${place}-${column}`}
        aria-label={`${names[column]}, line ${place + 1}`}
        aria-invalid={Boolean(problem)}
        aria-describedby={problem ? id : undefined}
        inputMode={column === 'quantity' ? 'text' : 'decimal'}
        value={column === 'quantity' ? withUnit(line) : (line[column] ?? '')}
        onChange={(e) =>
          p.onEdit(
            column === 'quantity' ? { quantity: e.target.value, unit: '' } : { [column]: e.target.value },
            column,
          )
        }
        onKeyDown={p.onKey(column)}
      />
      <FieldProblem text={problem} id={id} />
      {!problem && <Understood reckoning={p.reckoning} field={field} />}
    </>
  );
}

function Taxes(p: LineProps) {
  return (
    <div title={p.whyTax}>
      <TaxCell
        label={`Tax, line ${p.place + 1}`}
        taxes={p.taxes}
        chosen={p.line.taxes}
        problem={p.of(`lines[${p.place}].taxes`)}
        onChange={(ids) => p.onEdit({ taxes: ids }, 'taxes')}
      />
    </div>
  );
}

function Deeds(p: LineProps) {
  const { line, place } = p;
  const called = useRef('');
  const call = (field: 'note' | 'serial' | 'category') => {
    called.current = field;
    p.onEdit({ [field]: '' }, 'called');
  };
  // The menu gives the focus back to its button first; what was called is written next.
  const onClosed = () => {
    if (called.current) focusCell(place, called.current);
    called.current = '';
  };
  return (
    <Menu position="bottom-end" withinPortal onExitTransitionEnd={onClosed}>
      <Menu.Target>
        <button type="button" className={css.deeds} tabIndex={-1} aria-label={`More on line ${place + 1}`}>
          ⋯
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {line.note === null && <Menu.Item onClick={() => call('note')}>A note under it</Menu.Item>}
        {line.serial === null && <Menu.Item onClick={() => call('serial')}>A serial number</Menu.Item>}
        {line.category === null && <Menu.Item onClick={() => call('category')}>An income category</Menu.Item>}
        {p.choices && (
          <Menu.Item onClick={() => p.onEdit({ choice: line.choice ? null : 'ticked' }, 'choice')}>
            {line.choice ? 'It belongs to the quote' : 'The client can choose it'}
          </Menu.Item>
        )}
        {line.item === null && <Menu.Item onClick={p.onKeepAsItem}>Keep it in the catalogue</Menu.Item>}
        <Menu.Item onClick={() => p.onMove(place - 1)} disabled={place === 0}>
          Move it up
        </Menu.Item>
        <Menu.Item onClick={() => p.onMove(place + 1)}>Move it down</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** A line as a row of the sheet's table. */
export function SheetRow(p: LineProps & { onDragTo: (from: number) => void }) {
  const { line, place } = p;
  const reckoned = p.reckoning?.lines.find((l) => l.place === place);
  const drop = (event: DragEvent) => {
    const from = event.dataTransfer.getData('application/x-quill-line');
    if (from === '') return;
    event.preventDefault();
    p.onDragTo(Number(from));
  };
  return (
    <tr onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <td className={css.grip}>
        {!isBlank(line) && (
          <span
            draggable
            aria-hidden="true"
            title="Drag to another place"
            onDragStart={(e) => {
              e.dataTransfer.setData('application/x-quill-line', String(place));
              e.dataTransfer.effectAllowed = 'move';
            }}
          >
            ⠿
          </span>
        )}
      </td>
      <td className="what">
        <What {...p} />
      </td>
      {columns.map((column) => (
        <td key={column} className={`n ${css[column]}`}>
          <NumberCell {...p} column={column} />
        </td>
      ))}
      <td className={`n ${css.tax}`}>
        <Taxes {...p} />
      </td>
      <td className={`n ${css.amount}`}>
        {reckoned && <WhyFigure text={plain(reckoned.net)} why={reckoned.why} />}
      </td>
      <td className={css.off}>
        {!isBlank(line) && (
          <>
            <Deeds {...p} />
            <button
              type="button"
              className={css.deeds}
              tabIndex={-1}
              aria-label={`Remove line ${place + 1}`}
              onClick={p.onRemove}
            >
              ×
            </button>
          </>
        )}
      </td>
    </tr>
  );
}

const short = (t: Schemas['TaxView']) => (t.category === 'S' ? `${t.rate}%` : t.category);

/** A line on a phone: two rows, which open in place. */
export function SheetCard(p: LineProps & { open: boolean; onOpen: (open: boolean) => void }) {
  const { line, place, open } = p;
  const reckoned = p.reckoning?.lines.find((l) => l.place === place);
  const amount = reckoned ? plain(reckoned.net) : '';
  if (!open && !isBlank(line)) {
    const taxes = line.taxes
      .map((id) => p.taxes.find((t) => t.id === id))
      .filter((t) => t !== undefined)
      .map(short);
    const wrong = ['description', 'quantity', 'unitPrice', 'discount', 'taxes'].some((f) =>
      p.of(`lines[${place}].${f}`),
    );
    return (
      <li className={css.card}>
        <button type="button" className={css.closed} onClick={() => p.onOpen(true)}>
          <span className={css.option}>
            <span>{line.description || 'a line without a name'}</span>
            <span className="figures">{amount}</span>
          </span>
          <span className={`small ${wrong ? 'late' : 'faded'}`}>
            {wrong
              ? 'something here cannot be read'
              : [
                  `${withUnit(line)} × ${line.unitPrice ?? ''}`,
                  line.discount && `less ${line.discount}`,
                  taxes.join(' + '),
                ]
                  .filter(Boolean)
                  .join(' · ')}
          </span>
        </button>
      </li>
    );
  }
  // The field stays the same one while the card opens around it, so that nothing typed is lost.
  return (
    <li className={`${css.card} ${isBlank(line) ? '' : css.opened}`}>
      <div className={css.option}>
        <div className={css.grow}>
          <What {...p} onFocus={() => p.onOpen(true)} />
        </div>
        <b className="figures">{amount}</b>
      </div>
      <div className={css.cells} hidden={!open}>
        {columns.map((column) => (
          <div key={column} className="n">
            <span className={css.label}>{names[column]}</span>
            <NumberCell {...p} column={column} />
          </div>
        ))}
        <div className="n">
          <span className={css.label}>Tax</span>
          <Taxes {...p} />
        </div>
      </div>
      {!isBlank(line) && (
        <div className={css.cardDeeds}>
          <button type="button" className="link" disabled={place === 0} onClick={() => p.onMove(place - 1)}>
            Up
          </button>
          <button type="button" className="link" onClick={() => p.onMove(place + 1)}>
            Down
          </button>
          <button type="button" className="link" aria-label={`Remove line ${place + 1}`} onClick={p.onRemove}>
            Take out
          </button>
          <Deeds {...p} />
          <button type="button" className="link" onClick={() => p.onOpen(false)}>
            Done
          </button>
        </div>
      )}
    </li>
  );
}
