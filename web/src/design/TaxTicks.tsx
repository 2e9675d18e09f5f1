import { Checkbox } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import css from './Form.module.css';

/** Taxes to tick, in the order in which they were ticked; a retired one only where it is ticked already. */
export function TaxTicks({
  legend,
  taxes,
  chosen,
  problem,
  onChange,
}: {
  legend: string;
  taxes: Schemas['TaxView'][];
  chosen: string[];
  problem?: ReactNode;
  onChange: (ids: string[]) => void;
}) {
  return (
    <fieldset className={`${css.ticks} ${css.whole}`}>
      <legend>{legend}</legend>
      {taxes
        .filter((t) => !t.retired || chosen.includes(t.id))
        .map((t) => (
          <Checkbox
            key={t.id}
            label={t.name}
            checked={chosen.includes(t.id)}
            onChange={(e) =>
              onChange(e.currentTarget.checked ? [...chosen, t.id] : chosen.filter((id) => id !== t.id))
            }
          />
        ))}
      {problem && <p className="problem">{problem}</p>}
    </fieldset>
  );
}
