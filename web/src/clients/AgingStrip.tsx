import type { Schemas } from '../api/client';
import { isZero, plain } from '../design/format';

/** Open money by days past due, in a row; the further to the right, the longer it has been due. */
export function AgingStrip({ bands }: { bands: Schemas['Band'][] }) {
  return (
    <div className="strip aging" role="group" aria-label="Aging">
      {bands.map((b) => (
        <div key={b.band} className={b.band.toLowerCase()}>
          <span className="faded small">{b.words}</span>
          <b className={b.band === 'NOT_DUE' || isZero(b.amount) ? undefined : 'late'}>
            {isZero(b.amount) ? '–' : plain(b.amount)}
          </b>
        </div>
      ))}
    </div>
  );
}
