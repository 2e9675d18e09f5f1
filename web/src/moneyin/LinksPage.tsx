import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { paymentLink, paymentLinks } from '../api/moneyin';
import { Loaded } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { useTurning } from '../design/useTurning';
import { LinkForm } from './LinkForm';
import { LinkLeaf, sumOf } from './LinkLeaf';
import css from './MoneyIn.module.css';

function Index({ current }: { current: number | null }) {
  const links = useQuery(paymentLinks);
  const { leaf, turn } = useTurning(current);
  return (
    <div className="index" ref={leaf} onKeyDown={turn}>
      <nav className={css.places} aria-label="More of Money in">
        <Link className="link" to="/money-in">
          All that comes in
        </Link>
        <Link className="link" to="/money-in/links/new">
          New payment link
        </Link>
      </nav>
      <Loaded query={links} what="the payment links">
        {(groups) =>
          groups.length === 0 ? (
            <p className="empty">
              A payment link takes money with no invoice behind it: for a course, a voucher, a donation. None
              is made yet.
            </p>
          ) : (
            <>
              {groups.map((g) => (
                <section key={g.state} aria-label={g.title}>
                  <h2>{g.title}</h2>
                  {g.rows.map((r) => (
                    <Link
                      key={r.id}
                      className="row"
                      to={`/money-in/links/${r.id}`}
                      aria-current={r.id === current ? 'true' : undefined}
                      data-row
                    >
                      <span className="who">{r.title}</span>
                      <span className="open money">{sumOf(r.asks)}</span>
                      <span className="what">{r.words}</span>
                    </Link>
                  ))}
                </section>
              ))}
            </>
          )
        }
      </Loaded>
    </div>
  );
}

function Record({ id }: { id: number }) {
  const link = useQuery(paymentLink(id));
  return (
    <Loaded query={link} what="the payment link">
      {(r) => <LinkLeaf key={r.link.id} record={r} />}
    </Loaded>
  );
}

/** The spread of payment links. */
export function LinksPage() {
  const { id } = useParams();
  const narrow = useOneLeaf();
  const one = id && /^\d+$/.test(id) ? Number(id) : null;
  const fresh = id === 'new';
  useTitle(fresh ? 'New payment link' : one ? null : 'Payment links');
  return (
    <div className={`spread ${one || fresh ? 'has-record' : ''}`}>
      <Index current={one} />
      {one ? (
        <Record id={one} />
      ) : (
        <div className="record">
          <div className={css.leaf}>
            <div className={css.inner}>
              {fresh && narrow && (
                <Link className="link" to="/money-in/links">
                  All payment links
                </Link>
              )}
              {fresh ? (
                <>
                  <h1>New payment link</h1>
                  <LinkForm record={null} />
                </>
              ) : (
                <>
                  <h1>Payment links</h1>
                  <p>
                    Whoever has the address pays there by card, and gets a receipt. It can be sent, printed as
                    a square code, or set as a button into your own web page.
                  </p>
                  <Button component={Link} to="/money-in/links/new">
                    New payment link
                  </Button>
                </>
              )}
            </div>
          </div>
        </div>
      )}
    </div>
  );
}
