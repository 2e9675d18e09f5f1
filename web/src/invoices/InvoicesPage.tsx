import { useQuery } from '@tanstack/react-query';
import { useParams, useSearchParams } from 'react-router';
import { invoiceOf } from '../api/invoices';
import { Loaded } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { AskedNext } from './AskedNext';
import { invoiceDesk } from './desk';
import { InvoiceIndex } from './InvoiceIndex';
import { InvoiceRecord } from './InvoiceRecord';
import { Sheet } from './Sheet';
import { useTitle } from '../design/useTitle';

function Record({ id, client }: { id: number; client: number | null }) {
  const invoice = useQuery(invoiceOf(id));
  return (
    <Loaded query={invoice} what="the invoice">
      {(i) =>
        i.draft ? (
          <Sheet key={id} desk={invoiceDesk} draft={i.draft} client={client} />
        ) : (
          <div className="spread has-record">
            <InvoiceIndex current={id} />
            <InvoiceRecord invoice={i} />
          </div>
        )
      }
    </Loaded>
  );
}

/** The spread of invoices; while one is written the drawer takes the place of the index. */
export function InvoicesPage() {
  const { id } = useParams();
  useTitle(id ? null : 'Invoices');
  const [search] = useSearchParams();
  const client = search.get('client');
  const narrow = useOneLeaf();
  if (id === 'new')
    return (
      <Sheet key={`new-${client}`} desk={invoiceDesk} draft={null} client={client ? Number(client) : null} />
    );
  if (id && /^\d+$/.test(id)) return <Record id={Number(id)} client={client ? Number(client) : null} />;
  return (
    <div className="spread">
      <InvoiceIndex current={null} />
      <div className="record">{!narrow && <AskedNext />}</div>
    </div>
  );
}
