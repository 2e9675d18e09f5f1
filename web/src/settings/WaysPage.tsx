import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { processors, waysToPay } from '../api/business';
import { Link } from 'react-router';
import { KeptMethods } from './KeptMethods';
import { OnTopSetting } from './OnTopSetting';
import { Receipts } from './Receipts';
import { api, data, inMark, type Schemas } from '../api/client';
import css from '../design/Form.module.css';
import { isZero, money, shortDate } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';

type Setting = Schemas['WaySetting'];
type Typed = Setting['ways'][number];

const names: Record<string, string> = {
  CARD: 'By card',
  BANK_DEBIT: 'By bank debit',
  SATCHEL: 'By Satchel, a wallet',
  HATBOX: 'By Hatbox, a wallet',
  TRANSFER: 'By bank transfer',
  CASH: 'In cash',
  CHEQUE: 'By cheque',
};

const shown = (w: Typed): Typed => ({
  ...w,
  smallest: inMark(w.smallest),
  ceiling: inMark(w.ceiling),
  feePercent: inMark(w.feePercent),
  feeFixed: inMark(w.feeFixed),
});

/** Through which processor cards are taken, and what stands in the way there. */
function Through({ id, choose }: { id: string; choose: (id: string) => void }) {
  const all = useQuery(processors).data?.processors ?? [];
  const one = all.find((p) => `${p.id}` === id) ?? (all.length === 1 ? all[0] : undefined);
  return (
    <>
      {all.length > 1 && (
        <Select
          className={css.half}
          label="Through"
          data={[
            { value: '', label: 'the first that is on' },
            ...all.map((p) => ({ value: `${p.id}`, label: p.name })),
          ]}
          value={id}
          allowDeselect={false}
          onChange={(v) => choose(v ?? '')}
        />
      )}
      {one && (one.mode !== 'ON' || one.warnings.length > 0) && (
        <p className={`${css.whole} soon small`} role="alert" style={{ margin: 0 }}>
          {one.name}: {one.mode === 'OFF' && 'switched off, so no card is taken. '}
          {one.mode === 'TEST' && 'only being tested, so no card is taken for money. '}
          {one.warnings.join(' ')} <Link to="/settings/processors">Card processors</Link>
        </p>
      )}
    </>
  );
}

function WaysForm({ setting }: { setting: Setting }) {
  const queries = useQueryClient();
  const form = useServerForm<{ ways: Typed[] }, Setting>({
    initial: { ways: setting.ways.map(shown) },
    send: ({ ways }) => data(api.PUT('/api/ways-to-pay', { body: { ways, version: setting.version } })),
    onDone: async () => {
      await queries.invalidateQueries();
      tell('From now on; what is printed on issued documents stays.');
    },
  });
  const { ways } = form.form.values;
  const [asked] = useDebouncedValue(ways, 300);
  const costs = useQuery({
    queryKey: ['business', 'way-costs', asked],
    queryFn: () => data(api.POST('/api/ways-to-pay/costs', { body: { ways: asked, version: 0 } })),
    placeholderData: keepPreviousData,
  });
  return (
    <form className="form" onSubmit={form.submit} noValidate>
      {ways.map((w, i) => {
        const own = (costs.data ?? []).filter((c) => c.way === w.way);
        const at = (name: keyof Typed) => form.at('ways', i, name);
        return (
          <fieldset key={w.way} className={css.form} aria-label={names[w.way]}>
            <legend>
              <b>{names[w.way]}</b>
            </legend>
            <Checkbox
              className={css.whole}
              label="Offered to clients"
              checked={w.on}
              onChange={(e) => form.form.setFieldValue(`ways.${i}.on`, e.currentTarget.checked)}
            />
            {w.way === 'CARD' && (
              <Through id={w.processor} choose={(id) => form.form.setFieldValue(`ways.${i}.processor`, id)} />
            )}
            {(w.way === 'SATCHEL' || w.way === 'HATBOX') && (
              <p className={`${css.whole} small faded`} style={{ margin: 0 }}>
                A card in the payer’s telephone or browser. The pay page shows it only on devices that have
                it.
              </p>
            )}
            {own.length > 0 && (
              <p className={`${css.whole} small faded`} style={{ margin: 0 }} data-testid={`costs-${w.way}`}>
                {own.every((c) => isZero(c.cost))
                  ? 'It costs you nothing'
                  : `It costs you ${own.map((c) => `${money(c.cost)} of ${money(c.sum)}`).join(', ')}`}
                ; paid today, the money is there on {shortDate(own[0]?.arrivesOn ?? '')}.
              </p>
            )}
            <TextInput
              className={css.half}
              label="Only in these currencies"
              placeholder="all"
              {...at('currencies')}
            />
            <TextInput
              className={css.half}
              label="Only for clients in these countries"
              placeholder="all; IE, GB"
              {...at('countries')}
            />
            <TextInput className={css.half} label="From an amount of" placeholder="any" {...at('smallest')} />
            <TextInput className={css.half} label="Up to an amount of" placeholder="any" {...at('ceiling')} />
            <TextInput className={css.half} label="Costs you, in percent" {...at('feePercent')} />
            <TextInput className={css.half} label="and a fixed sum" {...at('feeFixed')} />
            <TextInput className={css.half} label="Working days until the money is there" {...at('days')} />
          </fieldset>
        );
      })}
      <Refusal error={form.elsewhere} />
      <Button type="submit" loading={form.save.isPending} style={{ alignSelf: 'flex-start' }}>
        Save
      </Button>
    </form>
  );
}

/** What clients may do on their pages beside paying what is due. */
function OnPages() {
  const queries = useQueryClient();
  const key = ['page-settings'];
  const setting = useQuery({ queryKey: key, queryFn: () => data(api.GET('/api/page-settings')) });
  const change = useMutation({
    mutationFn: (otherAmounts: boolean) => data(api.PUT('/api/page-settings', { body: { otherAmounts } })),
    onSuccess: (now) => queries.setQueryData(key, now),
  });
  return (
    <Loaded query={setting} what="the pages">
      {(s) => (
        <>
          <h2 style={{ marginTop: 32 }}>On clients’ pages</h2>
          <Checkbox
            label="They may pay another amount than the installments that are open"
            description="A deposit is paid whole all the same."
            checked={s.otherAmounts}
            onChange={(e) => change.mutate(e.currentTarget.checked)}
          />
          <Refusal error={change.error} />
        </>
      )}
    </Loaded>
  );
}

/** In which ways clients can pay, within which limits, and what that costs. */
export function WaysPage() {
  useTitle('Ways to pay');
  const setting = useQuery(waysToPay);
  return (
    <>
      <h1>Ways to pay</h1>
      <p className="faded">
        What is offered on clients’ pages, in letters and on paper. Amounts are in your own currency; of an
        invoice that is paid in parts, each part counts by itself. A client or a single document can be
        limited to some of them.
      </p>
      <Loaded query={setting} what="the ways to pay">
        {(s) => <WaysForm key={s.version} setting={s} />}
      </Loaded>
      <OnPages />
      <Receipts />
      <KeptMethods />
      <OnTopSetting />
    </>
  );
}
