import { VisuallyHidden } from '@mantine/core';
import type { Schemas } from '../api/client';
import css from './MoneyIn.module.css';

/** A payment's way to the bank, drawn: what is reached in ink, what is ahead dashed. */
export function Way({ way }: { way: Schemas['Station'][] }) {
  return (
    <ol className={css.way} aria-label="Its way">
      {way.map((s, i) => {
        const next = way[i + 1];
        return (
          <li key={i}>
            <span className={css.over}>{s.words}</span>
            {next && <span className={css.line} data-ahead={next.reached ? undefined : ''} aria-hidden />}
            <span className={css.dot} data-ahead={s.reached ? undefined : ''} aria-hidden />
            <span className={css.below}>
              {s.below}
              {!s.reached && <VisuallyHidden> (not there yet)</VisuallyHidden>}
            </span>
            {s.kept && <span className={css.kept}>{s.kept}</span>}
          </li>
        );
      })}
    </ol>
  );
}
