import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, data } from '../api/client';
import { Loaded } from '../design/States';
import { InvoiceIndex } from './InvoiceIndex';
import { InvoiceRecord } from './InvoiceRecord';
import { Sheet } from './Sheet';

function Record({ id }: { id: number }) {
  const invoice = useQuery({
    queryKey: ['invoice', id],
    queryFn: () => data(api.GET('/api/invoices/{id}', { params: { path: { id } } })),
  });
  return (
    <Loaded query={invoice} what="the invoice">
      {(i) =>
        i.draft ? (
          <Sheet key={id} draft={i.draft} />
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
  if (id === 'new') return <Sheet key="new" draft={null} />;
  if (id && /^\d+$/.test(id)) return <Record id={Number(id)} />;
  return (
    <div className="spread">
      <InvoiceIndex current={null} />
      <div className="record">
        <p className="empty">Choose an invoice from the list, or press N to write a new one.</p>
      </div>
    </div>
  );
}
