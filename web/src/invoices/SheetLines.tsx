import { useQuery } from '@tanstack/react-query';
import { type ClipboardEvent, type KeyboardEvent, useState } from 'react';
import { api, data } from '../api/client';
import { plain } from '../design/format';
import { WhyFigure } from '../design/Why';
import {
  type Change,
  FieldProblem,
  isRemoval,
  Understood,
  putBack,
  type SheetPart,
  usualTax,
} from './fields';
import { TaxCell } from './TaxCell';
import type { Line, Typed } from './useDraft';

/** As many as the server lists at once: from then on the list is filtered by what is typed. */
const MOST_CHOICES = 500;

/** Whom it is for: chosen from the clients, as it will be printed. */
export function ClientCell({
  typed,
  change,
  problem,
  onNewClient,
}: {
  typed: Typed;
  change: Change;
  problem: string | undefined;
  onNewClient: () => void;
}) {
  const [filter, setFilter] = useState('');
  const [many, setMany] = useState(false);
  const clients = useQuery({
    queryKey: ['clients', 'choices', filter],
    queryFn: async () => {
      const found = await data(api.GET('/api/clients/choices', { params: { query: { filter } } }));
      if (found.length >= MOST_CHOICES) setMany(true);
      return found;
    },
    placeholderData: (before) => before,
  });
  const chosen = useQuery({
    queryKey: ['client', typed.clientId, undefined],
    enabled: typed.clientId !== null,
    queryFn: () => data(api.GET('/api/clients/{id}', { params: { path: { id: typed.clientId ?? 0 } } })),
  });
  const own = chosen.data?.client;
  const found = clients.data ?? [];
  const listed = own && !found.some((c) => c.id === own.id) ? [own, ...found] : found;
  const sorted = [...listed].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <div>
      {many && (
        <input
          type="search"
          className="cell"
          aria-label="Find the client"
          placeholder="Find the client…"
          value={filter}
          onChange={(e) => setFilter(e.currentTarget.value)}
        />
      )}
      <label className="field">
        <span>To</span>
        <select
          aria-label="To"
          className="cell serif"
          style={{ fontSize: 18, fontWeight: 650 }}
          value={typed.clientId ?? ''}
          autoFocus={typed.clientId === null}
          aria-invalid={Boolean(problem)}
          onChange={(e) => {
            if (e.target.value === 'new') return onNewClient();
            const id = e.target.value ? Number(e.target.value) : null;
            change((t) => ({ ...t, clientId: id }));
          }}
        >
          <option value="">Choose the client…</option>
          <option value="new">+ A new client</option>
          {sorted.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </select>
        <FieldProblem text={problem} />
      </label>
      {own && (
        <p className="faded small pre address">{[own.contact, own.address].filter(Boolean).join('\n')}</p>
      )}
    </div>
  );
}

const columns = ['description', 'quantity', 'unitPrice', 'discount'] as const;

/** A quantity is written with its unit, in one place: 90 km. */
const withUnit = (line: Line) => [line.quantity, line.unit].filter(Boolean).join(' ');

function isBlank(line: Line | undefined): boolean {
  return !line || !(line.description || line.quantity || line.unitPrice || line.discount);
}

/** Rows pasted from a spreadsheet: what, quantity, price. */
function fromPaste(text: string, taxes: string[]): Line[] {
  return text
    .split(/\r?\n/)
    .filter((row) => row.trim())
    .map((row) => {
      const [description = '', quantity = '1', unitPrice = ''] = row.split('\t').map((cell) => cell.trim());
      return { description, quantity, unit: '', unitPrice, discount: '', taxes };
    });
}

const focusCell = (place: number, column: string) =>
  document.querySelector<HTMLElement>(`[data-cell="${place}-${column}"]`)?.focus();

/** The lines, walked like a grid: Tab goes on, Enter goes down, and an empty line waits at the end. */
export function SheetLines({ typed, change, reckoning, taxes, of, onRemoved }: SheetPart) {
  const usual = usualTax(taxes);
  const blank: Line = { description: '', quantity: '', unit: '', unitPrice: '', discount: '', taxes: usual };
  const lines = isBlank(typed.lines.at(-1)) && typed.lines.length ? typed.lines : [...typed.lines, blank];

  const edit = (place: number, part: Partial<Line>) =>
    change((t) => {
      const next = lines.map((l, i) => (i === place ? { ...l, ...part } : l));
      return { ...t, lines: isBlank(next.at(-1)) ? next : [...next, blank] };
    });
  const remove = (place: number) => {
    const gone = lines[place];
    change((t) => ({ ...t, lines: lines.filter((_, i) => i !== place) }));
    if (gone)
      onRemoved(`Line ${place + 1} removed.`, (t) => ({
        ...t,
        lines: putBack(t.lines, place, gone),
      }));
  };
  /** A line changes places with its neighbour, and the cursor goes along. */
  const move = (place: number, to: number, column: string) => {
    const [line, other] = [lines[place], lines[to]];
    if (!line || !other || isBlank(line) || isBlank(other)) return;
    change((t) => ({ ...t, lines: lines.map((l, i) => (i === place ? other : i === to ? line : l)) }));
    window.setTimeout(() => focusCell(to, column));
  };
  const paste = (place: number) => (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    if (!/[\t\n]/.test(text.trim())) return;
    event.preventDefault();
    const rows = fromPaste(text, usual);
    change((t) => ({
      ...t,
      lines: [...lines.slice(0, place), ...rows, ...lines.slice(isBlank(lines[place]) ? place + 1 : place)],
    }));
  };
  const down = (place: number, column: string) => (event: KeyboardEvent) => {
    if (isRemoval(event) && !isBlank(lines[place])) {
      event.preventDefault();
      return remove(place);
    }
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      return move(place, event.key === 'ArrowUp' ? place - 1 : place + 1, column);
    }
    if (event.key !== 'Enter' || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    focusCell(place + 1, column);
  };

  return (
    <table className="lines work">
      <thead>
        <tr>
          <th>What</th>
          <th className="n">Quantity</th>
          <th className="n">Price</th>
          <th className="n">Less</th>
          <th className="n">Tax</th>
          <th className="n">Amount</th>
          <th aria-label="Remove" />
        </tr>
      </thead>
      <tbody>
        {lines.map((line, place) => {
          const reckoned = reckoning?.lines.find((l) => l.place === place);
          const names = { description: 'What', quantity: 'Quantity', unitPrice: 'Price', discount: 'Less' };
          const hints = {
            description: place === lines.length - 1 ? 'Next line: type, or paste rows' : '',
            quantity: '',
            unitPrice: '',
            discount: '',
          };
          return (
            <tr key={place}>
              {columns.map((column) => {
                const problem = of(`lines[${place}].${column}`);
                return (
                  <td
                    key={column}
                    data-label={names[column]}
                    className={column === 'description' ? 'what' : 'n'}
                    style={widths[column]}
                  >
                    {column === 'description' ? (
                      <textarea
                        className="cell grows"
                        rows={1}
                        data-cell={`${place}-${column}`}
                        aria-label={`${names[column]}, line ${place + 1}`}
                        aria-invalid={Boolean(problem)}
                        placeholder={hints[column]}
                        value={line[column] ?? ''}
                        onChange={(e) => edit(place, { [column]: e.target.value })}
                        onPaste={paste(place)}
                        onKeyDown={down(place, column)}
                      />
                    ) : (
                      <input
                        className="cell"
                        data-cell={`${place}-${column}`}
                        aria-label={`${names[column]}, line ${place + 1}`}
                        aria-invalid={Boolean(problem)}
                        inputMode={column === 'quantity' ? 'text' : 'decimal'}
                        value={column === 'quantity' ? withUnit(line) : (line[column] ?? '')}
                        onChange={(e) =>
                          edit(
                            place,
                            column === 'quantity'
                              ? { quantity: e.target.value, unit: '' }
                              : { [column]: e.target.value },
                          )
                        }
                        onKeyDown={down(place, column)}
                      />
                    )}
                    <FieldProblem text={problem} />
                    {!problem && <Understood reckoning={reckoning} field={`lines[${place}].${column}`} />}
                  </td>
                );
              })}
              <td className="n" data-label="Tax" style={{ width: 66 }}>
                <TaxCell
                  label={`Tax, line ${place + 1}`}
                  taxes={taxes}
                  chosen={line.taxes}
                  problem={of(`lines[${place}].taxes`)}
                  onChange={(ids) => edit(place, { taxes: ids })}
                />
              </td>
              <td className="n" data-label="Amount" style={{ width: 84 }}>
                {reckoned && <WhyFigure text={plain(reckoned.net)} why={reckoned.why} />}
              </td>
              <td className="off" style={{ width: 16 }}>
                {!isBlank(line) && (
                  <button
                    type="button"
                    className="plain faded"
                    tabIndex={-1}
                    aria-label={`Remove line ${place + 1}`}
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
  );
}

const widths = {
  description: {},
  quantity: { width: 66 },
  unitPrice: { width: 80 },
  discount: { width: 58 },
};
