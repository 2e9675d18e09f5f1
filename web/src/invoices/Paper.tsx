import { type ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { isZero, longDate, money, plain } from '../design/format';
import { WhyFigure } from '../design/Why';

type Document = Schemas['PrintedDocument'];

const titles: Record<string, string> = {
  'credit note': 'Credit note',
  quote: 'Quote',
  'deposit invoice': 'Deposit invoice',
};

function Head({ document: d }: { document: Document }) {
  const title = titles[d.kind] ?? 'Invoice';
  return (
    <>
      <div className="top">
        <div>
          {d.look.logo && (
            <img
              src={`/api/business/logo/${d.look.logo}`}
              alt=""
              style={{ maxWidth: 200, maxHeight: 56, background: '#fff' }}
            />
          )}
          <h1>{d.from.name}</h1>
          <div className="faded small pre">{[d.from.under, d.from.address].filter(Boolean).join('\n')}</div>
        </div>
        <div>
          <div className="kind">
            {title} {d.number}
          </div>
          <div className="faded small right">
            issued {longDate(d.issuedOn)}
            {d.matter.supplyDate && (
              <>
                <br />
                supplied {longDate(d.matter.supplyDate)}
                {d.matter.supplyEnd ? ` to ${longDate(d.matter.supplyEnd)}` : ''}
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
          {d.to.delivery && (
            <div className="small">
              <span className="faded">Delivered to</span> {d.to.delivery.replace(/\n/g, ', ')}
            </div>
          )}
          {d.to.taxNumber && <div className="faded small">tax number {d.to.taxNumber}</div>}
        </div>
        <div>
          {d.matter.subject && <div className="faded small">For</div>}
          <div>{d.matter.subject}</div>
          {d.matter.reference && <div className="faded small">their order {d.matter.reference}</div>}
          {d.matter.project && <div className="faded small">project {d.matter.project}</div>}
          {d.matter.fields.map((f) => (
            <div key={f.label} className="faded small">
              {f.label}: {f.value}
            </div>
          ))}
          {d.corrects && (
            <div>
              Takes back {d.corrects.whole ? 'the whole, or the rest,' : 'a part'} of invoice{' '}
              {d.corrects.number}: {d.corrects.reason}
            </div>
          )}
        </div>
      </div>
    </>
  );
}

/** What is left of the accepted quote that it bills a part of. */
function Job({ job: j }: { job: NonNullable<Document['body']['job']> }) {
  return (
    <p className="small">
      Part of quote {j.quote} of {longDate(j.quotedOn)}, accepted for {money(j.total)}.{' '}
      {j.earlier.map((e) => (
        <span key={e.number}>
          {e.title} {e.number}: {money(e.total)}
          {e.deducted ? ', deducted here' : ''}.{' '}
        </span>
      ))}
      {isZero(j.left) || j.left.amount.startsWith('-')
        ? 'With this, all of it is invoiced.'
        : `${money(j.left)} of it is left to invoice.`}
    </p>
  );
}

function Sums({ document: d }: { document: Document }) {
  const back = d.kind === 'credit note';
  const more = !isZero(d.sums.prepaid) || !isZero(d.sums.rounding);
  const extra = (e: Document['body']['charges'][number]) =>
    e.description + (e.how ? `, ${e.how} of ${plain(e.base)}` : '');
  return (
    <table className="sums">
      <tbody>
        {d.body.discounts.map((e, i) => (
          <tr key={`d${i}`}>
            <td>{extra(e)}</td>
            <td>
              <WhyFigure text={`−${plain(e.amount)}`} why={e.why} />
            </td>
          </tr>
        ))}
        {d.body.charges.map((e, i) => (
          <tr key={`c${i}`}>
            <td>{extra(e)}</td>
            <td>
              <WhyFigure text={plain(e.amount)} why={e.why} />
            </td>
          </tr>
        ))}
        <tr>
          <td>Net{d.body.taxInside ? ' (prices include the tax)' : ''}</td>
          <td>
            <WhyFigure text={plain(d.sums.net)} why={d.sums.net.why} />
          </td>
        </tr>
        {d.body.taxes.map((t) => (
          <tr key={t.name}>
            <td>
              {t.category === 'O' ? 'No tax' : `${t.name} on ${plain(t.base)}`}
              {t.reason && <div className="faded small">{t.reason}</div>}
            </td>
            <td>
              <WhyFigure text={plain(t.amount)} why={t.why} />
            </td>
          </tr>
        ))}
        <tr className="total">
          <td>{back ? 'Total taken back' : 'Total'}</td>
          <td>
            <WhyFigure text={money(d.sums.total)} why={d.sums.total.why} />
          </td>
        </tr>
        {!isZero(d.sums.prepaid) && (
          <tr>
            <td>{back ? 'Deposit, held again' : 'Deposit already paid'}</td>
            <td>
              <WhyFigure text={`−${plain(d.sums.prepaid)}`} why={d.sums.prepaid.why} />
            </td>
          </tr>
        )}
        {!isZero(d.sums.rounding) && (
          <tr>
            <td>Rounding, paid in cash</td>
            <td>
              <WhyFigure text={plain(d.sums.rounding)} why={d.sums.rounding.why} />
            </td>
          </tr>
        )}
        {more && (
          <tr className="total">
            <td>{back ? 'Credited' : 'To be paid'}</td>
            <td>
              <WhyFigure text={money(d.sums.due)} why={d.sums.due.why} />
            </td>
          </tr>
        )}
        {d.sums.own && (
          <tr>
            <td>
              Tax in {d.sums.own.currency}, at {d.sums.own.rate}
            </td>
            <td>
              <WhyFigure text={plain(d.sums.own.tax)} why={d.sums.own.tax.why} />
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** An issued document as it was printed; every figure says why. It says how to pay while it asks for money. */
export function Paper({
  document: d,
  asks = false,
  children,
}: {
  document: Document;
  asks?: boolean;
  children?: ReactNode;
}) {
  return (
    <article className="sheet" aria-label={`${d.kind === 'invoice' ? 'Invoice' : 'Credit note'} ${d.number}`}>
      <Head document={d} />
      <table className="lines">
        <thead>
          <tr>
            <th>What</th>
            {d.look.lineShows !== 'amount' && (
              <>
                <th className="n">{d.look.lineShows === 'hours' ? 'Hours' : 'Quantity'}</th>
                <th className="n">{d.look.lineShows === 'hours' ? 'Rate' : 'Price'}</th>
              </>
            )}
            <th className="n">Tax</th>
            <th className="n">Amount</th>
          </tr>
        </thead>
        <tbody>
          {d.body.lines.map((l, i) => (
            <tr key={`${i}-${l.description}`}>
              <td>
                {l.description}
                {l.note && <div className="faded small pre">{l.note}</div>}
                {l.discount && <div className="faded small">less {l.discount}</div>}
              </td>
              {d.look.lineShows !== 'amount' && (
                <>
                  <td className="n">
                    {l.quantity} {d.look.lineShows === 'hours' && l.unitCode === 'HUR' ? '' : l.unit}
                  </td>
                  <td className="n">{plain({ amount: l.unitPrice })}</td>
                </>
              )}
              <td className="n">{l.tax}</td>
              <td className="n">
                <WhyFigure text={plain(l.sums.net)} why={l.sums.why} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Sums document={d} />
      {d.body.job && <Job job={d.body.job} />}
      {children}
      {asks && d.paying.iban && (
        <p className="faded small">
          By bank transfer to {d.paying.iban}, reference {d.paying.reference}.
        </p>
      )}
      {d.matter.notes && <p className="pre">{d.matter.notes}</p>}
      {d.matter.terms && <p className="faded small pre">{d.matter.terms}</p>}
      {d.matter.footer && <p className="faded small pre">{d.matter.footer}</p>}
    </article>
  );
}
