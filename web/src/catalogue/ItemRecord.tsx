import { Autocomplete, Button, Checkbox, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { business as businessQuery } from '../api/business';
import { catalogueKey, categories, itemOf, units } from '../api/catalogue';
import { api, data, inMark, type Schemas } from '../api/client';
import { shortDate } from '../design/format';
import { upload } from '../api/upload';
import { fitToSend, PictureField } from '../design/PictureField';
import { Loaded, Refusal } from '../design/States';
import { TaxTicks } from '../design/TaxTicks';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';
import css from '../design/Form.module.css';
import { tell } from '../design/tell';

type Item = Schemas['ItemView'];
type TypedItem = Schemas['TypedItem'];

const empty: TypedItem = {
  code: '',
  description: '',
  unit: '',
  prices: {},
  taxes: [],
  category: '',
  asksSerial: false,
  stock: '',
  warnBelow: '',
};

const usualUnits = ['h', 'day', 'week', 'month', 'km', 'm', 'm2', 'kg', 'l', 'piece', 'kWh'];

const moved = { COUNTED: 'counted', ISSUED: 'issued', TAKEN_BACK: 'taken back', CREDITED: 'credited' };

/** An item as the person types numbers. */
const typedIn = (t: TypedItem): TypedItem => ({
  ...t,
  prices: Object.fromEntries(Object.entries(t.prices).map(([c, p]) => [c, inMark(p)])),
  stock: inMark(t.stock),
  warnBelow: inMark(t.warnBelow),
});

export function ItemForm({ item, onDone }: { item: Item | null; onDone: (item: Item) => void }) {
  const queries = useQueryClient();
  const business = useQuery(businessQuery);
  const form = useServerForm<TypedItem, Item>({
    initial: item ? typedIn(item.typed) : empty,
    send: (typed) =>
      item
        ? data(
            api.PUT('/api/catalogue/items/{id}', {
              params: { path: { id: item.id } },
              body: { version: item.version, typed },
            }),
          )
        : data(api.POST('/api/catalogue/items', { body: typed })),
    onDone: async (saved) => {
      await queries.invalidateQueries({ queryKey: catalogueKey });
      onDone(saved);
    },
  });
  const ownUnits = useQuery(units);
  const used = useQuery(categories);
  const own = business.data?.business.currency ?? 'EUR';
  const currencies = [
    ...new Set([
      own,
      ...(business.data?.rates.map((r) => r.currency) ?? []),
      ...Object.keys(item?.typed.prices ?? {}),
    ]),
  ];
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <Textarea
        className={css.whole}
        label="Description"
        description="printed on the line"
        autosize
        minRows={1}
        autoFocus={!item}
        required
        {...form.field('description')}
      />
      <TextInput className={css.third} label="Code" {...form.field('code')} />
      <TextInput
        className={css.third}
        label="Unit"
        placeholder="h, km, piece…"
        list="units"
        {...form.field('unit')}
      />
      <datalist id="units">
        {[...usualUnits, ...(ownUnits.data?.map((u) => u.name) ?? [])].map((u) => (
          <option key={u} value={u} />
        ))}
      </datalist>
      {currencies.map((c) => (
        <TextInput
          key={c}
          className={css.third}
          label={currencies.length > 1 ? `Price in ${c}` : 'Price'}
          inputMode="decimal"
          {...form.field(`prices.${c}`)}
          value={form.form.values.prices[c] ?? ''}
        />
      ))}
      <TaxTicks
        legend="Taxes; none ticked: what a line begins with anyway"
        taxes={business.data?.taxes ?? []}
        chosen={form.form.values.taxes}
        problem={form.form.errors.taxes}
        onChange={(ids) => form.form.setFieldValue('taxes', ids)}
      />
      <Autocomplete
        className={css.whole}
        label="Income category"
        description="for your books alone; never printed"
        placeholder="Tuning, parts, lessons…"
        data={used.data ?? []}
        {...form.field('category')}
        onChange={(category) => form.form.setFieldValue('category', category)}
      />
      <TextInput
        className={css.third}
        label="In stock"
        placeholder="not counted"
        inputMode="decimal"
        {...form.field('stock')}
      />
      <TextInput
        className={css.third}
        label="Warn below"
        placeholder="never"
        inputMode="decimal"
        {...form.field('warnBelow')}
      />
      <Checkbox
        className={css.whole}
        label="Each line asks for a serial number"
        {...form.tick('asksSerial')}
      />
      <div className={css.whole}>
        <Refusal error={form.elsewhere} />
        <div className={css.acts}>
          <Button type="submit" loading={form.save.isPending}>
            Save
          </Button>
        </div>
      </div>
    </form>
  );
}

export function NewItem({ onDone }: { onDone: (item: Item) => void }) {
  useTitle('A new item');
  return (
    <div className="page">
      <Link className="link back" to="/catalogue">
        The catalogue
      </Link>
      <h1>A new item</h1>
      <ItemForm item={null} onDone={onDone} />
    </div>
  );
}

/** An item, and how its count came about. */
export function ItemRecord({ id }: { id: number }) {
  const details = useQuery(itemOf(id));
  const queries = useQueryClient();
  useTitle(details.data?.item.typed.description ?? 'Catalogue');
  const retire = useMutation({
    mutationFn: (item: Item) =>
      data(
        api.PUT('/api/catalogue/items/{id}/retired', {
          params: { path: { id } },
          body: { version: item.version, retired: !item.retired },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: catalogueKey }),
  });
  return (
    <Loaded query={details} what="the item">
      {({ item, movements }) => (
        <div className="page">
          <Link className="link back" to="/catalogue">
            The catalogue
          </Link>
          <div className="head">
            <h1>{item.typed.description}</h1>
            <Button variant="outline" loading={retire.isPending} onClick={() => retire.mutate(item)}>
              {item.retired ? 'Offer it again' : 'Retire'}
            </Button>
          </div>
          {item.retired && <p className="soon">Retired: it is not offered on new lines.</p>}
          {item.low && <p className="late">Only {item.typed.stock} in stock.</p>}
          <Refusal error={retire.error} />
          <ItemForm
            key={item.version}
            item={item}
            onDone={() => tell('Saved. What was issued keeps the price that it had.')}
          />
          <section aria-label="Picture" style={{ marginTop: 28 }}>
            <h2>Picture</h2>
            <PictureField
              src={item.picture && `/api/catalogue/pictures/${item.picture}`}
              alt={item.typed.description}
              label="A picture of it as PNG, JPEG or SVG"
              off="Leave it without one"
              hint="By which you know it again where you choose; never printed."
              onFile={async (file) => {
                await upload<Schemas['TakenPicture']>(
                  `/api/catalogue/items/${id}/picture`,
                  await fitToSend(file),
                );
                await queries.invalidateQueries({ queryKey: catalogueKey });
              }}
              onOff={async () => {
                await data(api.DELETE('/api/catalogue/items/{id}/picture', { params: { path: { id } } }));
                await queries.invalidateQueries({ queryKey: catalogueKey });
              }}
            />
          </section>
          {movements.length > 0 && (
            <section aria-label="How its count came about" style={{ marginTop: 28, maxWidth: 760 }}>
              <h2>How its count came about</h2>
              <table className="ledger">
                <thead>
                  <tr>
                    <th>Date</th>
                    <th>What</th>
                    <th>By</th>
                    <th className="n">Change</th>
                  </tr>
                </thead>
                <tbody>
                  {movements.map((m, i) => (
                    <tr key={i}>
                      <td className="figures">{shortDate(m.on)}</td>
                      <td>
                        {m.invoiceId ? (
                          <Link to={`/invoices/${m.invoiceId}`}>{moved[m.kind]}</Link>
                        ) : (
                          moved[m.kind]
                        )}
                      </td>
                      <td>{m.who}</td>
                      <td className="n">
                        {m.quantity.startsWith('-') ? m.quantity.replace('-', '−') : `+${m.quantity}`}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )}
        </div>
      )}
    </Loaded>
  );
}
