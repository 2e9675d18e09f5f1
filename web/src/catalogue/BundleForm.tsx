import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { bundles, catalogueKey, choicesOf } from '../api/catalogue';
import { business } from '../api/business';
import { api, data, inMark, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';
import css from '../design/Form.module.css';
import { tell } from '../design/tell';

type Bundle = Schemas['BundleView'];
interface Part {
  item: number;
  description: string;
  quantity: string;
}

/** Finds an item by a part of its name and adds it. */
function AddItem({ onAdd }: { onAdd: (item: number, description: string) => void }) {
  const [find, setFind] = useState('');
  const own = useQuery(business).data?.business.currency ?? 'EUR';
  const found = useQuery({ ...choicesOf(find, own), enabled: find !== '' });
  const items = find ? (found.data ?? []).filter((c) => !c.bundle) : [];
  return (
    <div>
      <TextInput
        label="Add an item"
        placeholder="a part of its name or code"
        value={find}
        onChange={(e) => setFind(e.currentTarget.value)}
      />
      {items.map((c) => (
        <p key={c.id} style={{ margin: '4px 0' }}>
          <button
            type="button"
            className="link"
            onClick={() => {
              onAdd(c.id, c.name);
              setFind('');
            }}
          >
            {c.name}
          </button>{' '}
          <span className="faded small">{c.under}</span>
        </p>
      ))}
      {find && found.data && items.length === 0 && <p className="faded small">No item fits.</p>}
    </div>
  );
}

function Editing({ bundle }: { bundle: Bundle | null }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const form = useServerForm<{ name: string; parts: Part[] }, number>({
    initial: {
      name: bundle?.name ?? '',
      parts: bundle?.parts.map((p) => ({ ...p, quantity: inMark(p.quantity) })) ?? [],
    },
    send: ({ name, parts }) => {
      const typed = { name, parts: parts.map(({ item, quantity }) => ({ item, quantity })) };
      return bundle
        ? data(
            api.PUT('/api/catalogue/bundles/{id}', {
              params: { path: { id: bundle.id } },
              body: { version: bundle.version, typed },
            }),
          )
        : data(api.POST('/api/catalogue/bundles', { body: typed }));
    },
    onDone: async (id) => {
      await queries.invalidateQueries({ queryKey: catalogueKey });
      tell('Saved.');
      void navigate(`/catalogue/bundle-${id}`);
    },
  });
  const remove = useMutation({
    mutationFn: () =>
      data(
        api.DELETE('/api/catalogue/bundles/{id}', {
          params: { path: { id: bundle?.id ?? 0 }, query: { version: bundle?.version ?? 0 } },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: catalogueKey });
      void navigate('/catalogue');
    },
  });
  const { parts } = form.form.values;
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput className={css.whole} label="Name" required autoFocus={!bundle} {...form.field('name')} />
      <div className={css.whole}>
        {parts.length > 0 && (
          <table className={css.parts}>
            <tbody>
              {parts.map((p, i) => (
                <tr key={i}>
                  <td>{p.description}</td>
                  <td style={{ width: 120 }}>
                    <TextInput
                      aria-label={`Quantity, ${p.description}`}
                      inputMode="decimal"
                      {...form.at('parts', i, 'quantity')}
                    />
                  </td>
                  <td style={{ width: 90 }}>
                    <button
                      type="button"
                      className="link"
                      onClick={() => form.form.removeListItem('parts', i)}
                      aria-label={`Remove ${p.description}`}
                    >
                      Remove
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {form.form.errors.parts && <p className="problem">{form.form.errors.parts}</p>}
      </div>
      <div className={css.whole}>
        <AddItem
          onAdd={(item, description) =>
            form.form.insertListItem('parts', { item, description, quantity: '1' })
          }
        />
      </div>
      <div className={css.whole}>
        <Refusal error={form.elsewhere ?? remove.error} />
        <div className={css.acts}>
          <Button type="submit" loading={form.save.isPending}>
            Save
          </Button>
          {bundle && (
            <button type="button" className="link late" onClick={() => remove.mutate()}>
              Delete the bundle; its items stay
            </button>
          )}
        </div>
      </div>
    </form>
  );
}

/** Several lines that are written at once. @param id 0 for a new one */
export function BundleForm({ id }: { id: number }) {
  const kept = useQuery(bundles);
  useTitle(id ? (kept.data?.find((b) => b.id === id)?.name ?? 'Bundle') : 'A new bundle');
  return (
    <Loaded query={kept} what="the bundles">
      {(all) => {
        const bundle = all.find((b) => b.id === id) ?? null;
        return (
          <div className="page">
            <Link className="link back" to="/catalogue">
              The catalogue
            </Link>
            <h1>{bundle?.name ?? 'A new bundle'}</h1>
            {id !== 0 && !bundle ? (
              <p className="empty">This bundle was deleted.</p>
            ) : (
              <Editing key={bundle?.version ?? 0} bundle={bundle} />
            )}
          </div>
        );
      }}
    </Loaded>
  );
}
