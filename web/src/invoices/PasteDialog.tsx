import { Button, Checkbox } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { Refusal } from '../design/States';
import css from './Sheet.module.css';
import { Dialog } from '../design/Dialog';

type Line = Schemas['TypedLine'];
const SHOWN = 8;

/** Rows pasted from a spreadsheet: which column is which is shown, and can be said otherwise, before they land. */
export function PasteDialog({
  rows,
  taxes,
  mark,
  onTake,
  onClose,
}: {
  rows: string[][];
  taxes: string[];
  mark: string;
  onTake: (lines: Line[]) => void;
  onClose: () => void;
}) {
  const [columns, setColumns] = useState<string[]>([]);
  const [headed, setHeaded] = useState(false);
  const read = useQuery({
    queryKey: ['pasted', rows, columns, headed, mark, taxes],
    queryFn: () => data(api.POST('/api/pasted-rows', { body: { rows, columns, headed, mark, taxes } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const r = read.data;
  const width = Math.max(...rows.map((row) => row.length));
  const names = Array.from({ length: width }, (_, i) => r?.columns[i] ?? '');
  const count = r?.lines.length ?? 0;
  // Whoever goes on at once goes on as soon as the rows are read.
  const [wanted, setWanted] = useState(false);
  useEffect(() => {
    if (wanted && r && !read.isFetching) onTake(r.lines);
  }, [wanted, r, read.isFetching, onTake]);
  return (
    <Dialog
      onClose={onClose}
      returnFocus={false}
      size="xl"
      title={`${count} ${count === 1 ? 'line' : 'lines'} to put on the sheet`}
    >
      <div className={css.scroll} data-sideways>
        <table className="ledger">
          <thead>
            <tr>
              {names.map((name, i) => (
                <th key={i}>
                  <select
                    className={css.choice}
                    aria-label={`Column ${i + 1}`}
                    value={name}
                    onChange={(e) => {
                      setHeaded(r?.headed ?? false);
                      setColumns(
                        names.map((n, c) => (c === i ? e.target.value : n === e.target.value ? '' : n)),
                      );
                    }}
                  >
                    <option value="">passed over</option>
                    {r?.choices.map((k) => (
                      <option key={k.name} value={k.name}>
                        {k.words}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, SHOWN).map((row, at) => (
              <tr key={at} className={r?.headed && at === 0 ? 'faded' : undefined}>
                {names.map((_, i) => (
                  <td key={i}>{row[i]}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > SHOWN && <p className="faded small">and {rows.length - SHOWN} further rows</p>}
      <Checkbox
        label="The first row names the columns"
        checked={r?.headed ?? false}
        onChange={(e) => {
          setColumns(names);
          setHeaded(e.currentTarget.checked);
        }}
      />
      <Refusal error={read.error} />
      <p>
        <Button data-autofocus onClick={() => setWanted(true)} loading={wanted && !read.error}>
          Put them on the sheet
        </Button>
      </p>
    </Dialog>
  );
}
