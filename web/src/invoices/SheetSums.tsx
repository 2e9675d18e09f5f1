import { useState } from 'react';
import type { Schemas } from '../api/client';
import { isZero, money, plain } from '../design/format';
import { WhyFigure } from '../design/Why';
import { type Change, FieldProblem } from './fields';
import type { Typed } from './useDraft';

function Row({ name, children, total }: { name: string; children: React.ReactNode; total?: boolean }) {
  return (
    <tr className={total ? 'total' : undefined}>
      <td>{name}</td>
      <td>{children}</td>
    </tr>
  );
}

/** The figures under the lines of a draft, each with its why. */
export function SheetSums({
  typed,
  change,
  reckoning: r,
  of,
}: {
  typed: Typed;
  change: Change;
  reckoning: Schemas['Reckoning'] | null;
  of: (field: string) => string | undefined;
}) {
  const sums = r?.sums;
  const prepaid = typed.prepaid ?? '';
  const [asking, setAsking] = useState(false);
  return (
    <table className="sums">
      <tbody>
        <Row name="Net">{sums?.net && <WhyFigure text={plain(sums.net)} why={sums.net.why} />}</Row>
        {r?.taxes.map((t) => (
          <Row key={t.name} name={`${t.name} on ${plain(t.base)}`}>
            <WhyFigure text={plain(t.amount)} why={t.why} />
          </Row>
        ))}
        <Row name="Total" total>
          {sums?.total && <WhyFigure text={money(sums.total)} why={sums.total.why} />}
        </Row>
        {prepaid === '' && !asking ? (
          <tr>
            <td colSpan={2} className="right">
              <button type="button" className="link" onClick={() => setAsking(true)}>
                + Deposit already paid
              </button>
            </td>
          </tr>
        ) : (
          <tr>
            <td>
              <label htmlFor="prepaid">Deposit already paid</label>
            </td>
            <td>
              <input
                id="prepaid"
                className="cell right"
                inputMode="decimal"
                value={prepaid}
                aria-invalid={Boolean(of('prepaid'))}
                onChange={(e) => {
                  const { value } = e.target;
                  change((t) => ({ ...t, prepaid: value }), 'prepaid');
                }}
              />
              <FieldProblem text={of('prepaid')} />
            </td>
          </tr>
        )}
        {sums?.rounding && (
          <Row name="Rounding, paid in cash">
            <WhyFigure text={plain(sums.rounding)} why={sums.rounding.why} />
          </Row>
        )}
        {sums?.due && (sums.prepaid || (sums.rounding && !isZero(sums.rounding))) && (
          <Row name="To be paid" total>
            <WhyFigure text={money(sums.due)} why={sums.due.why} />
          </Row>
        )}
        {sums?.own && (
          <Row name={`Tax in ${sums.own.currency}, at ${sums.own.rate}`}>
            <WhyFigure text={plain(sums.own.tax)} why={sums.own.tax.why} />
          </Row>
        )}
      </tbody>
    </table>
  );
}
