import { useState } from 'react';
import type { Schemas } from '../api/client';
import { FieldProblem } from './fields';
import css from './TaxCell.module.css';

type Tax = Schemas['TaxView'];
const short = (t: Tax) => (t.category === 'S' ? `${t.rate}%` : t.category);

/** The taxes of a line or a charge: one from the list, or several ticked in the order in which they build up. */
export function TaxCell({
  label,
  taxes,
  chosen,
  none,
  problem,
  onChange,
}: {
  label: string;
  taxes: Tax[];
  chosen: string[];
  none?: string;
  problem: string | undefined;
  onChange: (ids: string[]) => void;
}) {
  const [several, setSeveral] = useState(false);
  const offered = taxes.filter((t) => !t.retired || chosen.includes(t.id));
  const names = chosen.map((id) => taxes.find((t) => t.id === id)).filter((t) => t !== undefined);
  const rated = offered.filter((t) => t.category === 'S');
  const tick = (id: string, on: boolean) =>
    onChange(on ? [...chosen, id] : chosen.filter((other) => other !== id));
  return (
    <div className={css.taxCell}>
      <select
        className="cell"
        aria-label={label}
        aria-invalid={Boolean(problem)}
        value={chosen.length > 1 ? 'several' : (chosen[0] ?? '')}
        onChange={(e) => {
          const { value } = e.target;
          if (value === 'several' || value === 'more') setSeveral(true);
          else {
            setSeveral(false);
            onChange(value ? [value] : []);
          }
        }}
      >
        {(none !== undefined || chosen.length === 0) && <option value="">{none ?? '–'}</option>}
        {offered.map((t) => (
          <option key={t.id} value={t.id} title={t.name}>
            {short(t)}
          </option>
        ))}
        {chosen.length > 1 && <option value="several">{names.map(short).join(' + ')}</option>}
        {rated.length > 1 && chosen.length > 0 && <option value="more">several…</option>}
      </select>
      {several && (
        <div className={css.ticks} role="group" aria-label={`${label}: all that it bears`}>
          {rated.map((t) => (
            <label key={t.id}>
              <input
                type="checkbox"
                checked={chosen.includes(t.id)}
                onChange={(e) => tick(t.id, e.target.checked)}
              />{' '}
              {t.name}
              {t.compound ? ', on those before' : ''}
            </label>
          ))}
          <button type="button" className="link" onClick={() => setSeveral(false)}>
            Done
          </button>
        </div>
      )}
      <FieldProblem text={problem} />
    </div>
  );
}
