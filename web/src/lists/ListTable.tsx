import { NativeSelect, TextInput } from '@mantine/core';
import type { ReactNode } from 'react';
import { DayField } from '../design/DayField';
import { isDay } from '../design/format';
import { Sideways } from '../design/Sideways';
import { useAddressView } from '../design/useAddressView';
import { useTyped } from '../design/useTyped';
import type { ListView } from '../api/lists';
import css from './lists.module.css';

/** The view of a list, which its address holds: the usual order is the latest first. */
export function useListView(usual: string) {
  const { get, change, changeAll } = useAddressView();
  const view: ListView = {
    filter: get('filter'),
    which: get('which'),
    from: get('from'),
    to: get('to'),
    sort: get('sort', usual),
    down: get('way', 'down') === 'down',
  };
  const sortBy = (sort: string) => {
    const again = view.sort === sort;
    const up = again ? view.down : /client|way|number/.test(sort);
    changeAll({ sort: sort === usual ? '' : sort, way: up ? 'up' : '' });
  };
  return { view, change, sortBy };
}

/** A day that is understood; what is half typed narrows nothing yet. */
const whole = (day: string) => (isDay(day) ? day : '');

/** What a list is narrowed by: a text, a kind, a period. */
export function ListTools({
  label,
  view,
  kinds,
  period,
  change,
  children,
}: {
  label: string;
  view: ListView;
  kinds: readonly (readonly [string, string])[];
  period: string;
  change: (name: string, value: string) => void;
  children?: ReactNode;
}) {
  const typed = useTyped(view.filter, (text) => change('filter', text));
  return (
    <div className={`${css.tools} filter`}>
      <TextInput
        type="search"
        className={css.text ?? ''}
        label="Filter"
        aria-label={`Filter ${label}`}
        placeholder="name, number, reference…"
        {...typed}
      />
      <NativeSelect
        label="Show"
        data={kinds.map(([value, words]) => ({ value, label: words }))}
        value={view.which}
        onChange={(e) => change('which', e.currentTarget.value)}
      />
      <DayField
        className={css.day ?? ''}
        label={`${period} from`}
        lean="past"
        value={view.from}
        onChange={(day) => change('from', whole(day))}
      />
      <DayField
        className={css.day ?? ''}
        label="up to"
        lean="past"
        value={view.to}
        onChange={(day) => change('to', whole(day))}
      />
      <span className={css.beside}>{children}</span>
    </div>
  );
}

/** Further rows, as somebody asks for them. */
export function Further({
  rows,
}: {
  rows: { hasNextPage: boolean; isFetching: boolean; fetchNextPage: () => unknown };
}) {
  return rows.hasNextPage ? (
    <p>
      <button
        type="button"
        className="link"
        disabled={rows.isFetching}
        onClick={() => void rows.fetchNextPage()}
      >
        Show further ones
      </button>
    </p>
  ) : null;
}

export type Column<Row> = {
  name: string;
  head: string;
  /** By what the list can be ordered where the head is pressed. */
  sort?: string;
  number?: boolean;
  /** Whether a phone says the head beside it; it always does beside a number. */
  said?: boolean;
  cell: (row: Row) => ReactNode;
};

/** Rows with heads to order by and a foot of totals; rows can be chosen where something can be done to several. */
export function ListTable<Row extends { id: number }>({
  label,
  rows,
  columns,
  view,
  sortBy,
  foot,
  chosen,
  nameOf,
  onChoose,
}: {
  label: string;
  rows: Row[];
  columns: Column<Row>[];
  view: ListView;
  sortBy: (sort: string) => void;
  foot: ReactNode;
  chosen?: ReadonlySet<number>;
  nameOf?: (row: Row) => string;
  onChoose?: (ids: number[], on: boolean) => void;
}) {
  const all = chosen !== undefined && rows.length > 0 && rows.every((r) => chosen.has(r.id));
  return (
    <Sideways label={label}>
      <table className={`ledger ${css.table}`}>
        <thead>
          <tr>
            {chosen && (
              <th className={css.pick}>
                <input
                  type="checkbox"
                  aria-label="Choose all that are shown"
                  checked={all}
                  onChange={(e) =>
                    onChoose?.(
                      rows.map((r) => r.id),
                      e.currentTarget.checked,
                    )
                  }
                />
              </th>
            )}
            {columns.map((c) => {
              const by = c.sort === view.sort;
              return (
                <th
                  key={c.name}
                  className={c.number ? 'n' : undefined}
                  aria-sort={by ? (view.down ? 'descending' : 'ascending') : undefined}
                >
                  {c.sort ? (
                    <button type="button" className={css.sort} onClick={() => sortBy(c.sort ?? '')}>
                      {c.head}
                      {by && <span aria-hidden="true"> {view.down ? '↓' : '↑'}</span>}
                    </button>
                  ) : (
                    c.head
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.id} data-chosen={chosen?.has(r.id)}>
              {chosen && (
                <td className={css.pick}>
                  <input
                    type="checkbox"
                    aria-label={`Choose ${nameOf?.(r) ?? r.id}`}
                    checked={chosen.has(r.id)}
                    onChange={(e) => onChoose?.([r.id], e.currentTarget.checked)}
                  />
                </td>
              )}
              {columns.map((c) => (
                <td
                  key={c.name}
                  className={c.number ? 'n' : undefined}
                  data-label={c.number || c.said ? c.head : undefined}
                >
                  {c.cell(r)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <tfoot>{foot}</tfoot>
      </table>
    </Sideways>
  );
}
