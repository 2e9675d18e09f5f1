import type { Schemas } from '../api/client';
import { money, plain } from '../design/format';

/** What stands between the lines of a document and what is to be paid: discounts, charges, taxes, the total. */
export function SumRows({ document: d }: { document: Schemas['PrintedDocument'] }) {
  return (
    <>
      {d.body.discounts.map((e, i) => (
        <div key={`d${i}`}>
          <dt>
            {e.description}
            {e.how && <span className="faded small"> {e.how}</span>}
          </dt>
          <dd>−{plain(e.amount)}</dd>
        </div>
      ))}
      {d.body.charges.map((e, i) => (
        <div key={`c${i}`}>
          <dt>{e.description}</dt>
          <dd>{plain(e.amount)}</dd>
        </div>
      ))}
      {d.body.taxes
        .filter((t) => t.category !== 'O')
        .map((t) => (
          <div key={t.name} className="faded">
            <dt>
              {t.name} on {plain(t.base)}
              {t.reason && <span className="small"> {t.reason}</span>}
            </dt>
            <dd>{plain(t.amount)}</dd>
          </div>
        ))}
      <div className="total">
        <dt>Total</dt>
        <dd>{money(d.sums.total)}</dd>
      </div>
    </>
  );
}
