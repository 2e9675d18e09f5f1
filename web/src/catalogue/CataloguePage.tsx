import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { business } from '../api/business';
import { bundles, extras, itemsOf, type ItemView } from '../api/catalogue';
import { api, data, inMark, type Schemas } from '../api/client';
import { money } from '../design/format';
import { Loaded } from '../design/States';
import { useAddressView } from '../design/useAddressView';
import { useTitle } from '../design/useTitle';
import { useTyped } from '../design/useTyped';
import { KeptViews } from '../lists/KeptViews';
import { TakeTable } from '../tables/TakeTable';
import { BundleForm } from './BundleForm';
import css from '../design/Form.module.css';
import { ItemRecord, NewItem } from './ItemRecord';
import { Thumb } from './Thumb';
import { UnitsPage } from './UnitsPage';

const sorts = [
  ['description', 'by description'],
  ['code', 'by code'],
  ['stock', 'by what is in stock'],
] as const;

/** The view of the list, which the address holds. */
function useView() {
  const { get, is, change, tail } = useAddressView();
  const view: ItemView = {
    filter: get('filter'),
    sort: get('sort', 'description'),
    low: is('low'),
    retired: is('retired'),
  };
  return { view, change, tail };
}

function priceOf(item: Schemas['ItemView'], own: string): string {
  const price = item.typed.prices[own];
  if (price) return money({ amount: price, currency: own });
  const [other, amount] = Object.entries(item.typed.prices)[0] ?? [];
  return other && amount ? money({ amount, currency: other }) : '';
}

/** Discounts and charges kept for reuse: the sheet offers them. */
function Extras({ own }: { own: string }) {
  const queries = useQueryClient();
  const all = useQuery(extras).data ?? [];
  const forget = useMutation({
    mutationFn: (id: number) => data(api.DELETE('/api/catalogue/extras/{id}', { params: { path: { id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: extras.queryKey }),
  });
  return (
    <>
      <h2>
        <span>Discounts and charges</span>
      </h2>
      {all.length === 0 && (
        <p className="empty">
          Keep one from a sheet, and every sheet offers it: delivery, an early-bird discount.
        </p>
      )}
      {all.map((e) => (
        <div key={e.id} className="row">
          <span className="who">{e.description}</span>
          <span className="open money">
            {e.charge ? '' : '−'}
            {e.amount.endsWith('%') ? inMark(e.amount) : money({ amount: e.amount, currency: own })}
          </span>
          <span className="what">
            {e.charge ? 'charge' : 'discount'} ·{' '}
            <button
              type="button"
              className="link"
              aria-label={`Forget ${e.description}`}
              onClick={() => forget.mutate(e.id)}
            >
              Forget
            </button>
          </span>
        </div>
      ))}
    </>
  );
}

function Index({ open }: { open: string | undefined }) {
  const { view, change, tail } = useView();
  const typed = useTyped(view.filter, (text) => change('filter', text));
  const items = useInfiniteQuery(itemsOf(view));
  const kept = useQuery(bundles);
  const own = useQuery(business).data?.business.currency ?? 'EUR';
  const csv = new URLSearchParams({
    filter: view.filter,
    sort: view.sort,
    low: String(view.low),
    retired: String(view.retired),
  });
  return (
    <div className="index">
      <div className="filter">
        <input
          type="search"
          aria-label="Filter the catalogue"
          placeholder="Filter the catalogue…"
          {...typed}
        />
        <Link className="link" to={`/catalogue/new${tail}`}>
          New item
        </Link>
      </div>
      <div className={css.tools}>
        <select aria-label="Order" value={view.sort} onChange={(e) => change('sort', e.target.value)}>
          {sorts.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
        <label>
          <input type="checkbox" checked={view.low} onChange={(e) => change('low', e.target.checked)} />{' '}
          running out
        </label>
        <label>
          <input
            type="checkbox"
            checked={view.retired}
            onChange={(e) => change('retired', e.target.checked)}
          />{' '}
          retired
        </label>
      </div>
      <KeptViews place="/catalogue" />
      <Loaded query={items} what="the catalogue">
        {({ pages }) => (
          <>
            <h2>
              <span>Items</span>
              <span className="faded">{pages[0]?.count}</span>
            </h2>
            {pages[0]?.count === 0 && (
              <p className="empty">
                {view.filter || view.low || view.retired
                  ? 'No item fits. '
                  : 'What you sell again and again stands here, with its price and its tax. '}
                <Link to="/catalogue/new">Add an item</Link> or{' '}
                <Link to="/catalogue/table">take a table in</Link>.
              </p>
            )}
            {pages
              .flatMap((p) => p.rows)
              .map((i) => (
                <Link
                  key={i.id}
                  className="row"
                  to={`/catalogue/${i.id}${tail}`}
                  aria-current={String(i.id) === open ? 'true' : undefined}
                >
                  <span className="who">
                    {i.picture && <Thumb picture={i.picture} />}
                    {i.typed.description}
                  </span>
                  <span className="open money">{priceOf(i, own)}</span>
                  <span className={`what ${i.low ? 'late' : ''}`}>
                    {[
                      i.typed.code,
                      i.typed.unit && `per ${i.typed.unit}`,
                      i.typed.stock && `${i.typed.stock} in stock`,
                    ]
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                </Link>
              ))}
            {items.hasNextPage && (
              <p className="empty">
                <button
                  type="button"
                  className="link"
                  disabled={items.isFetching}
                  onClick={() => void items.fetchNextPage()}
                >
                  Show further ones, of {pages[0]?.count} in all
                </button>
              </p>
            )}
          </>
        )}
      </Loaded>
      {!view.low && !view.retired && (
        <>
          <h2>
            <span>Bundles</span>
            <Link className="link" to={`/catalogue/bundle${tail}`}>
              New bundle
            </Link>
          </h2>
          {kept.data?.length === 0 && (
            <p className="empty">Lines that you write together, at once: yearly care, say.</p>
          )}
          {kept.data
            ?.filter((b) => b.name.toLowerCase().includes(view.filter.toLowerCase()))
            .map((b) => (
              <Link
                key={b.id}
                className="row"
                to={`/catalogue/bundle-${b.id}${tail}`}
                aria-current={open === `bundle-${b.id}` ? 'true' : undefined}
              >
                <span className="who">{b.name}</span>
                <span />
                <span className="what">{b.parts.map((p) => p.description).join(', ')}</span>
              </Link>
            ))}
        </>
      )}
      {!view.low && !view.retired && (
        <>
          <Extras own={own} />
          <h2>
            <span>Units</span>
            <Link className="link" to={`/catalogue/units${tail}`}>
              Your own units
            </Link>
          </h2>
        </>
      )}
      <p className={`${css.tools} ${css.plainTools}`}>
        <a className="link" href={`/api/catalogue/items.csv?${csv.toString()}`} download>
          Save as CSV
        </a>
        <Link className="link" to="/catalogue/table">
          Take a table in
        </Link>
      </p>
    </div>
  );
}

/** What is asked next where no item is open: what is running out. */
function RunningOut() {
  const low = useInfiniteQuery(itemsOf({ filter: '', sort: 'stock', low: true, retired: false }));
  const rows = low.data?.pages.flatMap((p) => p.rows) ?? [];
  return (
    <div className="page">
      <h1>Catalogue</h1>
      <p className="faded">
        Type a part of an item’s name on an invoice, and its line is written. What was issued keeps the price
        that it had.
      </p>
      {rows.length > 0 && (
        <>
          <h2>Running out</h2>
          <table className="ledger">
            <thead>
              <tr>
                <th>Item</th>
                <th className="n">In stock</th>
                <th className="n">Warn below</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((i) => (
                <tr key={i.id}>
                  <td>
                    <Link to={`/catalogue/${i.id}`}>{i.typed.description}</Link>
                  </td>
                  <td className="n late">{i.typed.stock}</td>
                  <td className="n">{i.typed.warnBelow}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}

/** The spread of the catalogue: items and bundles, and what one of them says. */
export function CataloguePage() {
  const { id } = useParams();
  useTitle(id ? null : 'Catalogue');
  const navigate = useNavigate();
  const { tail } = useView();
  const bundle = /^bundle(?:-(\d+))?$/.exec(id ?? '');
  return (
    <div className={`spread ${id ? 'has-record' : ''}`}>
      <Index open={id} />
      <div className="record">
        <div style={{ overflow: 'auto' }}>
          {id === 'table' ? (
            <div className="page">
              <Link className="link back" to="/catalogue">
                The catalogue
              </Link>
              <h1>Take a table of items in</h1>
              <TakeTable
                path="/api/catalogue/table"
                one="item"
                many="items"
                onTaken={() => void navigate('/catalogue')}
              />
            </div>
          ) : bundle ? (
            <BundleForm key={id} id={Number(bundle[1] ?? 0)} />
          ) : id === 'units' ? (
            <UnitsPage />
          ) : id === 'new' ? (
            <NewItem onDone={(item) => void navigate(`/catalogue/${item.id}${tail}`)} />
          ) : id ? (
            <ItemRecord key={id} id={Number(id)} />
          ) : (
            <RunningOut />
          )}
        </div>
      </div>
    </div>
  );
}
