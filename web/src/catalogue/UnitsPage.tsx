import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { units } from '../api/catalogue';
import { api, data } from '../api/client';
import css from '../design/Form.module.css';
import { Loaded, Refusal } from '../design/States';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';

function NewUnit() {
  const queries = useQueryClient();
  const form = useServerForm({
    initial: { name: '', code: '' },
    send: (typed) => data(api.POST('/api/catalogue/units', { body: typed })),
    onDone: async () => {
      form.form.reset();
      await queries.invalidateQueries({ queryKey: units.queryKey });
    },
  });
  return (
    <form className={css.form} onSubmit={form.submit} noValidate>
      <TextInput
        className={css.half}
        label="Unit"
        description="as you write it behind a quantity"
        placeholder="session"
        {...form.field('name')}
      />
      <TextInput
        className={css.half}
        label="Code of UN/ECE"
        description="E48 a service, C62 one, HUR an hour"
        placeholder="E48"
        {...form.field('code')}
      />
      <div className={css.whole}>
        <Refusal error={form.elsewhere} />
        <div className={css.acts}>
          <Button type="submit" loading={form.save.isPending}>
            Keep this unit
          </Button>
        </div>
      </div>
    </form>
  );
}

/** Units of the business's own, each with the code that a program reads from an electronic invoice. */
export function UnitsPage() {
  useTitle('Your own units');
  const queries = useQueryClient();
  const all = useQuery(units);
  const forget = useMutation({
    mutationFn: (name: string) =>
      data(api.DELETE('/api/catalogue/units/{name}', { params: { path: { name } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: units.queryKey }),
  });
  return (
    <div className="page">
      <Link className="link back" to="/catalogue">
        The catalogue
      </Link>
      <h1>Your own units</h1>
      <p className="faded">
        Hours, days, weeks, months, km, m, m2, kg, g, l, pieces and kWh are known. For a unit of your own,
        name the code of UN/ECE Recommendation 20 that an electronic invoice says. What was issued keeps its
        code.
      </p>
      <Refusal error={forget.error} />
      <Loaded query={all} what="your units">
        {(kept) =>
          kept.length > 0 ? (
            <table className="ledger" style={{ maxWidth: 480 }}>
              <thead>
                <tr>
                  <th>Unit</th>
                  <th>Code</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {kept.map((u) => (
                  <tr key={u.name}>
                    <td>{u.name}</td>
                    <td className="figures">{u.code}</td>
                    <td className="n">
                      <button
                        type="button"
                        className="link"
                        aria-label={`Forget ${u.name}`}
                        onClick={() => forget.mutate(u.name)}
                      >
                        Forget
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null
        }
      </Loaded>
      <NewUnit />
    </div>
  );
}
