import { type ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { longDate, money, plain } from '../design/format';
import { type Asked, WhyFigure } from '../design/Why';

/** An issued document as it was printed; every figure says why. */
export function Paper({
  document: d,
  children,
  onAsk,
}: {
  document: Schemas['FixedDocument'];
  children?: ReactNode;
  onAsk: (asked: Asked) => void;
}) {
  return (
    <article className="sheet" aria-label={`Invoice ${d.number}`}>
      <div className="top">
        <div>
          <h1>{d.from.name}</h1>
          <div className="faded small pre">{[d.from.under, d.from.address].filter(Boolean).join('\n')}</div>
        </div>
        <div>
          <div className="kind">Invoice {d.number}</div>
          <div className="faded small right">
            issued {longDate(d.issuedOn)}
            {d.supplyDate && (
              <>
                <br />
                supplied {longDate(d.supplyDate)}
                {d.supplyEnd ? ` to ${longDate(d.supplyEnd)}` : ''}
              </>
            )}
          </div>
        </div>
      </div>
      <div className="parties">
        <div>
          <div className="faded small">To</div>
          <div className="serif" style={{ fontSize: 18, fontWeight: 650 }}>
            {d.to.name}
          </div>
          <div className="pre">{[d.to.under, d.to.address].filter(Boolean).join('\n')}</div>
        </div>
        <div>
          {d.subject && <div className="faded small">For</div>}
          <div>{d.subject}</div>
          {d.reference && <div className="faded small">their order {d.reference}</div>}
        </div>
      </div>
      <table className="lines">
        <thead>
          <tr>
            <th>What</th>
            <th className="n">Quantity</th>
            <th className="n">Price</th>
            <th className="n">Tax</th>
            <th className="n">Amount</th>
          </tr>
        </thead>
        <tbody>
          {d.lines.map((l, i) => (
            <tr key={`${i}-${l.description}`}>
              <td>
                {l.description}
                {l.discount && <div className="faded small">less {l.discount}</div>}
              </td>
              <td className="n">
                {l.quantity} {l.unit}
              </td>
              <td className="n">{plain({ amount: l.unitPrice })}</td>
              <td className="n">{l.tax}</td>
              <td className="n">
                <WhyFigure text={plain(l.net)} why={l.why} onAsk={onAsk} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="sums">
        <tbody>
          <tr>
            <td>Net</td>
            <td>
              <WhyFigure text={plain(d.net)} why={d.net.why} onAsk={onAsk} />
            </td>
          </tr>
          {d.taxes.map((t) => (
            <tr key={t.name}>
              <td>
                {t.category === 'O' ? 'No tax' : `${t.name} on ${plain(t.base)}`}
                {t.reason && <div className="faded small">{t.reason}</div>}
              </td>
              <td>
                <WhyFigure text={plain(t.amount)} why={t.why} onAsk={onAsk} />
              </td>
            </tr>
          ))}
          <tr className="total">
            <td>Total</td>
            <td>
              <WhyFigure text={money(d.total)} why={d.total.why} onAsk={onAsk} />
            </td>
          </tr>
        </tbody>
      </table>
      {children}
      {d.iban && (
        <p className="faded small">
          Pay by card on the page, or to {d.iban}, reference {d.paymentReference}.
        </p>
      )}
      {d.notes && <p className="pre">{d.notes}</p>}
      {d.footer && <p className="faded small pre">{d.footer}</p>}
    </article>
  );
}
