import { Button, NativeSelect } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { upload } from '../api/upload';
import { Refusal } from '../design/States';
import css from './TakeTable.module.css';
import { tell } from '../design/tell';

type How = Schemas['How'];
type Plan = Schemas['TablePlan'];

const nothing: How = { columns: [], mark: '', mended: {}, leftOut: [], fingerprint: '' };
const landing = { NEW: 'new', CHANGED: 'changes', SAME: 'stays as it is' };

/**
 * Takes a table in. It is shown first: which column is which, how the first rows would stand, and each row that cannot
 * be read, with the reason, to be mended here or left out. Then it is taken whole, or not at all.
 */
export function TakeTable({
  path,
  one,
  many,
  cards,
  onTaken,
}: {
  path: string;
  one: string;
  many: string;
  /** Whether cards are taken too. */
  cards?: boolean;
  onTaken: () => void;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [how, setHow] = useState<How>(nothing);
  const [plan, setPlan] = useState<Plan | null>(null);
  const [typed, setTyped] = useState<Record<number, string[]>>({});
  const read = useMutation({
    mutationFn: (asked: { file: File; how: How }) => upload<Plan>(path, asked.file, asked.how),
    onSuccess: (answer, asked) => {
      if (answer.taken) {
        const n = answer.counts.fresh + answer.counts.changed;
        tell(`${n.toLocaleString('en-GB')} ${n === 1 ? one : many} taken in.`);
        onTaken();
        return;
      }
      setHow({ ...asked.how, columns: answer.columns, mark: answer.lettering.mark });
      setPlan(answer);
    },
  });
  const look = (next: How) => file && read.mutate({ file, how: { ...next, fingerprint: '' } });
  const choose = (chosen: File) => {
    setFile(chosen);
    setPlan(null);
    setTyped({});
    setHow(nothing);
    read.mutate({ file: chosen, how: nothing });
  };
  const mendedWith = (): How['mended'] => ({ ...how.mended, ...typed });
  const n = (count: number) => count.toLocaleString('en-GB');
  const name = (c: string) => plan?.choices.find((k) => k.name === c)?.words ?? c;

  return (
    <div>
      <input
        ref={picker}
        type="file"
        hidden
        accept={`.csv,.txt,.tsv,text/csv,text/plain${cards ? ',.vcf,text/vcard' : ''}`}
        aria-label={cards ? 'A table as CSV, or cards' : 'A table as CSV'}
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          if (chosen) choose(chosen);
          e.target.value = '';
        }}
      />
      <p className={css.acts}>
        <Button variant={plan ? 'outline' : 'filled'} onClick={() => picker.current?.click()}>
          {plan ? 'Choose another file' : cards ? 'Choose a CSV or vCard file' : 'Choose a CSV file'}
        </Button>
        {file && <span className="faded">{file.name}</span>}
      </p>
      {!plan && !read.isPending && (
        <p className="faded">
          The first row names the columns. Nothing is kept before you have seen what would become of it.
        </p>
      )}
      {plan && (
        <>
          <p className={css.facts}>
            <b>{n(plan.counts.rows)} rows</b>
            <span>{n(plan.counts.fresh)} new</span>
            <span>{n(plan.counts.changed)} change</span>
            <span>{n(plan.counts.same)} stay as they are</span>
            {plan.counts.leftOut > 0 && <span>{n(plan.counts.leftOut)} left out</span>}
            <span className={plan.counts.bad ? 'late' : undefined}>{n(plan.counts.bad)} cannot be read</span>
            <span className="faded small">
              letters: {plan.lettering.charset}; between cells:{' '}
              {plan.lettering.separator === '\t' ? 'tab' : plan.lettering.separator}
            </span>
          </p>
          <NativeSelect
            label="Its numbers have before the decimals"
            style={{ maxWidth: 320, marginBottom: 14 }}
            data={[
              { value: '.', label: 'a point: 1,234.50' },
              { value: ',', label: 'a comma: 1.234,50' },
            ]}
            value={plan.lettering.mark}
            onChange={(e) => look({ ...how, mark: e.currentTarget.value, mended: mendedWith() })}
          />
          <h2>Its columns</h2>
          <div className={css.scroll} data-sideways>
            <table className="ledger">
              <thead>
                <tr>
                  {plan.heads.map((head, i) => (
                    <th key={i}>{head || <span className="faded">no name</span>}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                <tr>
                  {plan.heads.map((head, i) => (
                    <td key={i}>
                      <select
                        className={css.choice}
                        aria-label={`Column ${head || i + 1}`}
                        value={plan.columns[i] ?? ''}
                        onChange={(e) => {
                          const columns = plan.heads.map((_, c) =>
                            c === i
                              ? e.target.value
                              : plan.columns[c] === e.target.value
                                ? ''
                                : (plan.columns[c] ?? ''),
                          );
                          look({ ...how, columns, mended: mendedWith() });
                        }}
                      >
                        <option value="">passed over</option>
                        {plan.choices.map((k) => (
                          <option key={k.name} value={k.name}>
                            {k.words}
                          </option>
                        ))}
                      </select>
                    </td>
                  ))}
                </tr>
              </tbody>
            </table>
          </div>
          {plan.fingerprint === '' && (
            <p className="alert" role="alert">
              Say which column is “
              {plan.choices.find((k) => k.needed && !plan.columns.includes(k.name))?.words}
              ”.
            </p>
          )}
          {plan.bad.length > 0 && (
            <section aria-label="Rows that cannot be read">
              <h2>Rows that cannot be read</h2>
              <div className={css.scroll} data-sideways>
                <table className={`ledger ${css.bad}`}>
                  <thead>
                    <tr>
                      <th>Row</th>
                      {plan.heads.map((head, i) => (
                        <th key={i}>{head}</th>
                      ))}
                      <th />
                    </tr>
                  </thead>
                  <tbody>
                    {plan.bad.map((b) => (
                      <tr key={b.row}>
                        <td className="n">{b.row}</td>
                        {plan.heads.map((head, i) => {
                          const problem = b.problems.find((p) => p.field === plan.columns[i]);
                          const id = `bad-${b.row}-${i}`;
                          return (
                            <td key={i}>
                              <input
                                aria-label={`${head || `Column ${i + 1}`}, row ${b.row}`}
                                aria-invalid={Boolean(problem)}
                                aria-describedby={problem ? id : undefined}
                                value={(typed[b.row] ?? b.cells)[i] ?? ''}
                                onChange={(e) => {
                                  const { value } = e.target;
                                  setTyped((t) => ({
                                    ...t,
                                    [b.row]: plan.heads.map((_, c) =>
                                      c === i ? value : ((t[b.row] ?? b.cells)[c] ?? ''),
                                    ),
                                  }));
                                }}
                              />
                              {problem && (
                                <p className="problem" id={id}>
                                  {problem.message}
                                </p>
                              )}
                            </td>
                          );
                        })}
                        <td>
                          {b.problems
                            .filter((p) => !plan.columns.includes(p.field))
                            .map((p) => (
                              <p key={p.field} className="problem">
                                {name(p.field)}: {p.message}
                              </p>
                            ))}
                          <button
                            type="button"
                            className="link"
                            onClick={() =>
                              look({ ...how, leftOut: [...how.leftOut, b.row], mended: mendedWith() })
                            }
                          >
                            Leave row {b.row} out
                          </button>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              {plan.counts.bad > plan.bad.length && (
                <p className="faded">
                  The first {plan.bad.length} are shown; mend them, then the others come.
                </p>
              )}
              <p>
                <Button onClick={() => look({ ...how, mended: mendedWith() })} loading={read.isPending}>
                  Read the mended rows
                </Button>
              </p>
            </section>
          )}
          {plan.sample.length > 0 && (
            <section aria-label="How they would stand">
              <h2>How they would stand</h2>
              <div className={css.scroll} data-sideways>
                <table className="ledger">
                  <thead>
                    <tr>
                      <th>Row</th>
                      {plan.columns
                        .filter((c) => c !== '')
                        .map((c) => (
                          <th key={c}>{name(c)}</th>
                        ))}
                      <th />
                    </tr>
                  </thead>
                  <tbody>
                    {plan.sample.map((s) => (
                      <tr key={s.row}>
                        <td className="n">{s.row}</td>
                        {s.values.map((v, i) => (
                          <td key={i}>{v}</td>
                        ))}
                        <td className="faded">{landing[s.landing]}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            </section>
          )}
        </>
      )}
      <Refusal error={read.error} />
      {plan && plan.counts.bad === 0 && plan.fingerprint !== '' && (
        <Button
          loading={read.isPending}
          disabled={plan.counts.fresh + plan.counts.changed === 0}
          onClick={() => file && read.mutate({ file, how: { ...how, fingerprint: plan.fingerprint } })}
        >
          {plan.counts.fresh + plan.counts.changed === 0
            ? 'Nothing here is new'
            : `Take ${n(plan.counts.fresh + plan.counts.changed)} ${plan.counts.fresh + plan.counts.changed === 1 ? one : many} in`}
        </Button>
      )}
    </div>
  );
}
