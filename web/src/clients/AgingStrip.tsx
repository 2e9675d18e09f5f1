import type { Schemas, Why } from '../api/client';
import { isNegative, isZero, plain } from '../design/format';
import { WhyFigure } from '../design/Why';
import css from './AgingStrip.module.css';

/** Hundredths of the bar, from the digits alone: for drawing only. */
const weight = (band: Schemas['Band']) => Number(band.amount.amount.replace('-', ''));

/** Open money by days past due, drawn as a bar; the further to the right, the longer it has been due. */
export function AgingStrip({
  bands,
  why,
}: {
  bands: Schemas['Band'][];
  why: (band: string) => () => Promise<Why>;
}) {
  const open = bands.filter((b) => !isZero(b.amount));
  if (open.length === 0) return null;
  return (
    <div role="group" aria-label="Aging" className="aging">
      <div className={css.bar} aria-hidden="true">
        {open
          .filter((b) => !isNegative(b.amount))
          .map((b) => (
            <span
              key={b.band}
              className={
                b.band === 'NOT_DUE' ? undefined : `${css.late} ${b.band === 'OVER_90' ? css.long : ''}`
              }
              style={{ flex: `${weight(b)} 0 0` }}
            />
          ))}
      </div>
      <ul className={css.words}>
        {open.map((b) => (
          <li key={b.band}>
            <span className="faded">{b.words}</span>{' '}
            <b className={b.band === 'NOT_DUE' ? undefined : 'late'}>
              <WhyFigure text={plain(b.amount)} why={why(b.band)} />
            </b>
          </li>
        ))}
      </ul>
    </div>
  );
}
