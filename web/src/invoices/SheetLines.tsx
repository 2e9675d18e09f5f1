import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Papa from 'papaparse';
import { type ClipboardEvent, type KeyboardEvent, useLayoutEffect, useState } from 'react';
import { catalogueKey, categories } from '../api/catalogue';
import { api, data, messageOf } from '../api/client';
import { blankLine, isBlank, isRemoval, type SheetPart } from './fields';
import { PasteDialog } from './PasteDialog';
import css from './Sheet.module.css';
import { focusCell } from './focusCell';
import { type LineProps, SheetCard, SheetRow } from './SheetLine';
import type { Line, Typed } from './useDraft';
import type { Choice } from './WhatCell';
import { tell } from '../design/tell';
import { usePhone } from '../design/useNarrow';

/** Where Enter leads from each cell of a line: on to the price, and then to the next line. */
const NEXT: Record<string, string> = {
  description: 'quantity',
  serial: 'quantity',
  category: 'quantity',
  quantity: 'unitPrice',
};

const inMarkOf = (typed: Typed, plain: string) => (typed.mark === ',' ? plain.replace('.', ',') : plain);

/** The lines that a choice of the catalogue becomes, typed with the draft's decimal mark. */
export function linesOf(choice: Choice, typed: Typed, usual: string[], clientsOwn: boolean): Line[] {
  return choice.lines.map((l) => ({
    ...l,
    quantity: inMarkOf(typed, l.quantity),
    unitPrice: inMarkOf(typed, l.unitPrice),
    // What is kept with the client comes before what is kept with the item.
    taxes: clientsOwn || l.taxes.length === 0 ? usual : l.taxes,
  }));
}

/** The lines: Tab walks their cells, Enter leads on to the price and the next line, and an empty one waits at the end. */
export function SheetLines({
  typed,
  change,
  reckoning,
  taxes,
  of,
  onRemoved,
  usual,
  whyUsual,
  clientsOwn,
  choices,
}: SheetPart & {
  /** Whether lines can be left to the client's choice. */
  choices: boolean;
  /** The taxes that a new line begins with. */
  usual: string[];
  whyUsual: string;
  /** Whether they are kept with the client. */
  clientsOwn: boolean;
}) {
  const phone = usePhone();
  const [pasted, setPasted] = useState<{ rows: string[][]; place: number } | null>(null);
  const [open, setOpen] = useState(0);
  const [going, setGoing] = useState<{ place: number; column: string } | null>(null);
  // With the lines that it goes to: a moment later it would be taken from wherever somebody has gone meanwhile.
  useLayoutEffect(() => {
    if (going) focusCell(going.place, going.column);
  }, [going]);
  const goTo = (place: number, column: string) => setGoing({ place, column });
  const queries = useQueryClient();
  const blank = blankLine(usual);
  const lines = isBlank(typed.lines.at(-1)) && typed.lines.length > 0 ? typed.lines : [...typed.lines, blank];

  const put = (edit: (lines: Line[]) => Line[], what?: string) =>
    change((t) => {
      const next = edit(isBlank(t.lines.at(-1)) && t.lines.length > 0 ? t.lines : [...t.lines, blank]);
      return { ...t, lines: isBlank(next.at(-1)) ? next : [...next, blank] };
    }, what);
  const edit = (place: number) => (part: Partial<Line>, what: string) =>
    put(
      (all) =>
        all.map((l, i) => (i === place ? { ...l, ...(isBlank(l) ? { taxes: usual } : {}), ...part } : l)),
      what === 'called' || what === 'taxes' ? undefined : `lines[${place}].${what}`,
    );
  const remove = (place: number) => {
    put((all) => all.filter((_, i) => i !== place));
    onRemoved(`Line ${place + 1} removed.`);
  };
  /** A line goes to another place, and the cursor goes along. */
  const move = (place: number, to: number, column = 'description') => {
    const line = lines[place];
    if (!line || isBlank(line) || to < 0 || isBlank(lines[to])) return;
    put((all) => {
      const rest = all.filter((_, i) => i !== place);
      return [...rest.slice(0, to), line, ...rest.slice(to)];
    });
    if (phone) setOpen(to);
    goTo(to, column);
  };
  /** Lines take the place of the one that is written on, if it has nothing else on it. */
  const insert = (place: number, added: Line[]) =>
    put((all) => {
      const here = all[place];
      const taken = here !== undefined && !here.quantity && !here.unitPrice && !here.discount;
      return [...all.slice(0, taken ? place : place + 1), ...added, ...all.slice(place + 1)];
    });
  const choose = (place: number) => (choice: Choice) => {
    const added = linesOf(choice, typed, usual, clientsOwn);
    insert(place, added);
    const bundle = added.length > 1;
    goTo(bundle ? place + added.length : place, bundle ? 'description' : 'quantity');
  };
  const paste = (place: number) => (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    const rows = Papa.parse<string[]>(text.trimEnd(), { delimiter: '\t' }).data;
    if (rows.length < 2 && (rows[0]?.length ?? 0) < 2) return;
    event.preventDefault();
    setPasted({ rows, place });
  };
  const key = (place: number) => (column: string) => (event: KeyboardEvent) => {
    const { target } = event;
    if (isRemoval(event) && !isBlank(lines[place])) {
      event.preventDefault();
      return remove(place);
    }
    const down = event.key === 'ArrowDown';
    if (down || event.key === 'ArrowUp') {
      const to = down ? place + 1 : place - 1;
      if (event.altKey) {
        event.preventDefault();
        return move(place, to, column);
      }
      // Within a text of several lines the arrows stay its own.
      if (target instanceof HTMLTextAreaElement && target.value.includes('\n')) return;
      if (!event.ctrlKey && !event.metaKey && !event.shiftKey) {
        event.preventDefault();
        focusCell(to, column);
      }
      return;
    }
    if (event.key !== 'Enter' || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    const next = NEXT[column];
    if (event.shiftKey) focusCell(place - 1, column);
    else if (next && !(column === 'description' && isBlank(lines[place]))) focusCell(place, next);
    else {
      if (phone) setOpen(place + 1);
      goTo(place + 1, 'description');
    }
  };
  const used = useQuery({ ...categories, enabled: lines.some((l) => l.category !== null) });
  const keep = useMutation({
    mutationFn: async (place: number) => {
      const line = lines[place];
      if (!line) throw new Error('This line is gone.');
      const item = await data(
        api.POST('/api/catalogue/items', {
          body: {
            code: '',
            description: line.description ?? '',
            unit: line.unit ?? '',
            prices: { [typed.currency]: line.unitPrice ?? '' },
            taxes: line.taxes.filter((t) => taxes.some((own) => own.id === t)),
            category: line.category ?? '',
            asksSerial: line.serial !== null,
            stock: '',
            warnBelow: '',
          },
        }),
      );
      return { place, item: item.id };
    },
    onSuccess: ({ place, item }) => {
      put((all) => all.map((l, i) => (i === place ? { ...l, item } : l)));
      void queries.invalidateQueries({ queryKey: catalogueKey });
      tell('It stands in the catalogue now.');
    },
    onError: (error) => tell(messageOf(error), { title: 'Not kept in the catalogue' }),
  });

  const propsOf = (line: Line, place: number): LineProps => ({
    choices,
    line,
    place,
    last: place === lines.length - 1,
    currency: typed.currency,
    reckoning,
    taxes,
    whyTax: isBlank(line) || String(line.taxes) === String(usual) ? whyUsual : '',
    of,
    onEdit: edit(place),
    onChoose: choose(place),
    onPaste: paste(place),
    onKey: key(place),
    onMove: (to) => move(place, to),
    onRemove: () => remove(place),
    onKeepAsItem: () => keep.mutate(place),
  });

  return (
    <>
      <datalist id="income-categories">
        {used.data?.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
      {phone ? (
        <ol className={css.cards}>
          {lines.map((line, place) => (
            <SheetCard
              key={place}
              {...propsOf(line, place)}
              open={open === place}
              onOpen={(on) => setOpen(on ? place : -1)}
            />
          ))}
        </ol>
      ) : (
        <table className={`lines work ${css.table}`}>
          <thead>
            <tr>
              <th aria-label="Drag" className={css.grip} />
              <th>What</th>
              <th className="n">Quantity</th>
              <th className="n">Price</th>
              <th className="n">Less</th>
              <th className="n">Tax</th>
              <th className="n">Amount</th>
              <th aria-label="More" />
            </tr>
          </thead>
          <tbody>
            {lines.map((line, place) => (
              <SheetRow
                key={place}
                {...propsOf(line, place)}
                onDragTo={(from) => move(from, isBlank(line) ? lines.length - 2 : place)}
              />
            ))}
          </tbody>
        </table>
      )}
      {pasted && (
        <PasteDialog
          rows={pasted.rows}
          taxes={usual}
          mark={typed.mark ?? '.'}
          onTake={(added) => {
            insert(pasted.place, added);
            setPasted(null);
            window.setTimeout(() => focusCell(pasted.place + added.length, 'description'));
          }}
          onClose={() => {
            setPasted(null);
            window.setTimeout(() => focusCell(pasted.place, 'description'));
          }}
        />
      )}
    </>
  );
}
