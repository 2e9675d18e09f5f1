import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { creditNoteOf } from '../api/invoices';
import { money } from '../design/format';
import { Loaded } from '../design/States';
import { InvoiceIndex } from './InvoiceIndex';
import { WhyFigure } from '../design/Why';
import { Paper } from './Paper';

/** A credit note, read beside the invoices. */
export function CreditNotePage() {
  const { id = '', note = '' } = useParams();
  const document = useQuery(creditNoteOf(Number(note)));
  return (
    <div className="spread has-record">
      <InvoiceIndex current={Number(id)} />
      <Loaded query={document} what="the credit note">
        {(d) => (
          <div className="record">
            <div className="body">
              <Paper document={d} />
            </div>
            <div className="foot">
              <Link className="link" to={`/invoices/${id}`}>
                The invoice, {d.corrects?.number}
              </Link>
              <span className="figure">
                <small>Taken back</small>
                <b>
                  <WhyFigure text={money(d.sums.total)} why={d.sums.total.why} />
                </b>
              </span>
              <a className="link" href={`/api/credit-notes/${note}/pdf`} target="_blank" rel="noreferrer">
                PDF
              </a>
              <a
                className="link"
                href={`/api/credit-notes/${note}/pdf?reckoning=true`}
                target="_blank"
                rel="noreferrer"
              >
                PDF with the reckoning
              </a>
              <a className="link" href={`/api/credit-notes/${note}/ubl`}>
                UBL file
              </a>
            </div>
          </div>
        )}
      </Loaded>
    </div>
  );
}
