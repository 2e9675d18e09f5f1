import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { quoteOf } from '../api/quotes';
import { Loaded } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { Sheet } from '../invoices/Sheet';
import { quoteDesk } from './quoteDesk';
import { QuoteIndex } from './QuoteIndex';
import { QuoteRecord } from './QuoteRecord';

function Record({ id, client }: { id: number; client: number | null }) {
  const quote = useQuery(quoteOf(id));
  return (
    <Loaded query={quote} what="the quote">
      {(q) =>
        q.draft ? (
          <Sheet key={id} desk={quoteDesk} draft={q.draft} client={client} />
        ) : (
          <div className="spread has-record">
            <QuoteIndex current={id} />
            {q.issued && <QuoteRecord quote={q} issued={q.issued} />}
          </div>
        )
      }
    </Loaded>
  );
}

/** The spread of quotes. */
export function QuotesPage() {
  const { id } = useParams();
  useTitle(id ? null : 'Quotes');
  const [search] = useSearchParams();
  const client = search.get('client');
  const narrow = useOneLeaf();
  if (id === 'new')
    return (
      <Sheet key={`new-${client}`} desk={quoteDesk} draft={null} client={client ? Number(client) : null} />
    );
  if (id && /^\d+$/.test(id)) return <Record id={Number(id)} client={client ? Number(client) : null} />;
  return (
    <div className="spread">
      <QuoteIndex current={null} />
      <div className="record">
        {!narrow && (
          <div className="page">
            <h1>Quotes</h1>
            <p className="faded">
              An offer with a last day. Its client reads it, ticks what it likes, and accepts it with its
              name.
            </p>
            <Link className="link" to="/quotes/new">
              Write a quote
            </Link>
          </div>
        )}
      </div>
    </div>
  );
}
