import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { extras } from '../api/catalogue';
import { api, data, inMark, messageOf, type Schemas } from '../api/client';
import { plain } from '../design/format';
import { tell } from '../design/tell';
import { WhyFigure } from '../design/Why';
import { FieldProblem, type SheetPart, usualTax } from './fields';
import { TaxCell } from './TaxCell';
import type { Typed } from './useDraft';

type Kind = 'discounts' | 'charges';
const words = {
  discounts: { one: 'Discount', what: 'why it is given', sign: '−', add: 'Discount on the whole' },
  charges: { one: 'Charge', what: 'delivery, for example', sign: '', add: 'Charge' },
};

/** Discounts on the whole document, and charges with their own taxes. */
export function SheetExtras({ typed, change, reckoning, taxes, of, onRemoved }: SheetPart) {
  const usual = usualTax(taxes);
  const edit = (kind: Kind, place: number, part: Partial<Typed['charges'][number]>) =>
    change(
      (t) => ({ ...t, [kind]: t[kind].map((e, i) => (i === place ? { ...e, ...part } : e)) }),
      `${kind}[${place}].${Object.keys(part).join()}`,
    );
  const remove = (kind: Kind, place: number) => {
    change((t) => ({ ...t, [kind]: t[kind].filter((_, i) => i !== place) }));
    onRemoved(`${words[kind].one} ${place + 1} removed.`);
  };
  const add = (kind: Kind) =>
    change((t) => ({
      ...t,
      [kind]: [...t[kind], { description: '', amount: '', taxes: kind === 'charges' ? usual : [] }],
    }));
  const kept = useQuery(extras).data ?? [];
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: ({ kind, extra }: { kind: Kind; extra: Typed['charges'][number] }) =>
      data(api.POST('/api/catalogue/extras', { body: { ...extra, id: 0, charge: kind === 'charges' } })),
    onSuccess: (_, { extra }) => {
      tell(`“${extra.description}” is kept for reuse, in the catalogue.`);
      void queries.invalidateQueries({ queryKey: extras.queryKey });
    },
    onError: (error) => tell(messageOf(error), { title: 'It cannot be kept yet' }),
  });
  const isKept = (kind: Kind, extra: Typed['charges'][number]) =>
    kept.some((k) => k.charge === (kind === 'charges') && k.description === extra.description.trim());
  const take = (k: Schemas['KeptExtra']) =>
    change((t) => {
      const kind = k.charge ? 'charges' : 'discounts';
      const extra = { description: k.description, amount: inMark(k.amount), taxes: k.taxes };
      return { ...t, [kind]: [...t[kind], extra] };
    });
  const rows = (kind: Kind) =>
    typed[kind].map((extra, place) => {
      const reckoned = reckoning?.[kind].find((e) => e.place === place);
      const path = `${kind}[${place}]`;
      const name = `${words[kind].one} ${place + 1}`;
      return (
        <tr key={path}>
          <td>
            <input
              className="cell"
              aria-label={`${name}, what for`}
              placeholder={words[kind].what}
              value={extra.description}
              aria-invalid={Boolean(of(`${path}.description`))}
              onChange={(e) => edit(kind, place, { description: e.target.value })}
            />
            <FieldProblem text={of(`${path}.description`)} />
            {extra.description.trim() && extra.amount.trim() && !isKept(kind, extra) && (
              <button
                type="button"
                className="link small"
                tabIndex={-1}
                onClick={() => keep.mutate({ kind, extra })}
              >
                Keep it for reuse
              </button>
            )}
          </td>
          <td className="n" style={{ width: 96 }}>
            <input
              className="cell"
              aria-label={`${name}, amount or percentage`}
              placeholder="10% or 25.00"
              value={extra.amount}
              aria-invalid={Boolean(of(`${path}.amount`))}
              onChange={(e) => edit(kind, place, { amount: e.target.value })}
            />
            <FieldProblem text={of(`${path}.amount`)} />
          </td>
          <td className="n" style={{ width: 92 }}>
            <TaxCell
              label={`${name}, tax`}
              taxes={taxes}
              chosen={extra.taxes}
              {...(kind === 'discounts' ? { none: 'all rates' } : {})}
              problem={of(`${path}.taxes`)}
              onChange={(ids) => edit(kind, place, { taxes: ids })}
            />
          </td>
          <td className="n" style={{ width: 84 }}>
            {reckoned && (
              <WhyFigure text={`${words[kind].sign}${plain(reckoned.amount)}`} why={reckoned.why} />
            )}
          </td>
          <td style={{ width: 16 }}>
            <button
              type="button"
              className="plain faded"
              tabIndex={-1}
              aria-label={`Remove ${name.toLowerCase()}`}
              onClick={() => remove(kind, place)}
            >
              ×
            </button>
          </td>
        </tr>
      );
    });
  const any = typed.discounts.length + typed.charges.length > 0;
  return (
    <>
      {any && (
        <table className="lines extras" aria-label="Discounts and charges on the whole">
          <tbody>
            {rows('discounts')}
            {rows('charges')}
          </tbody>
        </table>
      )}
      <p className="adding">
        {(['discounts', 'charges'] as const).map((kind) => (
          <button key={kind} type="button" className="link" onClick={() => add(kind)}>
            + {words[kind].add}
          </button>
        ))}
        {kept.map((k) => (
          <button key={k.id} type="button" className="link" onClick={() => take(k)}>
            + {k.description}, {inMark(k.amount)}
          </button>
        ))}
      </p>
    </>
  );
}
