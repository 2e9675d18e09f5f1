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
  const prepaid = typed.prepaid ?? '';
  const [asking, setAsking] = useState(false);
  return (
    <table className="sums">
      <tbody>
        <Row name="Net">{r?.net && <WhyFigure text={plain(r.net)} why={r.net.why} />}</Row>
        {r?.taxes.map((t) => (
          <Row key={t.name} name={`${t.name} on ${plain(t.base)}`}>
            <WhyFigure text={plain(t.amount)} why={t.why} />
          </Row>
        ))}
        <Row name="Total" total>
          {r?.total && <WhyFigure text={money(r.total)} why={r.total.why} />}
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
        {r?.rounding && (
          <Row name="Rounding, paid in cash">
            <WhyFigure text={plain(r.rounding)} why={r.rounding.why} />
          </Row>
        )}
        {r?.due && (r.prepaid || (r.rounding && !isZero(r.rounding))) && (
          <Row name="To be paid" total>
            <WhyFigure text={money(r.due)} why={r.due.why} />
          </Row>
        )}
        {r?.own && (
          <Row name={`Tax in ${r.own.currency}, at ${r.own.rate}`}>
            <WhyFigure text={plain(r.own.tax)} why={r.own.tax.why} />
          </Row>
        )}
      </tbody>
    </table>
  );
}
