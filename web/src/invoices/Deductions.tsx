import type { Schemas } from '../api/client';
import { plain } from '../design/format';
import { WhyFigure } from '../design/Why';

/** Deposit invoices of the same job that the final invoice takes off, a line for each set of taxes. */
export function Deductions({ of }: { of: Schemas['ReckonedDeduction'][] }) {
  if (of.length === 0) return null;
  return (
    <table className="lines extras" aria-label="Deposit invoices that are deducted">
      <tbody>
        {of.map((d, i) => (
          <tr key={i}>
            <td>{d.words}</td>
            <td className="n" style={{ width: 120 }}>
              <WhyFigure text={plain(d.net)} why={d.why} />
            </td>
            <td style={{ width: 16 }} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}
