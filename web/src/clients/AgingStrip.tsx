import type { Schemas, Why } from '../api/client';
import { isZero, plain } from '../design/format';
import { WhyFigure } from '../design/Why';

/** Open money by days past due, in a row; the further to the right, the longer it has been due. */
export function AgingStrip({
  bands,
  why,
}: {
  bands: Schemas['Band'][];
  why: (band: string) => () => Promise<Why>;
}) {
  return (
    <div className="strip aging" role="group" aria-label="Aging">
      {bands.map((b) => (
        <div key={b.band} className={b.band.toLowerCase()}>
          <span className="faded small">{b.words}</span>
          <b className={b.band === 'NOT_DUE' || isZero(b.amount) ? undefined : 'late'}>
            {isZero(b.amount) ? '–' : <WhyFigure text={plain(b.amount)} why={why(b.band)} />}
          </b>
        </div>
      ))}
    </div>
  );
}
