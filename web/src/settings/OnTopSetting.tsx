import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { business } from '../api/business';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import css from '../design/Form.module.css';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';

type Setting = Schemas['OnTopSetting'];

function OnTopForm({ setting, taxes }: { setting: Setting; taxes: Schemas['TaxView'][] }) {
  const queries = useQueryClient();
  const [s, setS] = useState<Setting>({
    ...setting,
    percent: inMark(setting.percent),
    fixed: inMark(setting.fixed),
    most: inMark(setting.most),
  });
  const set = (change: Partial<Setting>) => setS({ ...s, ...change });
  const save = useMutation({
    mutationFn: () => data(api.PUT('/api/on-top', { body: s })),
    onSuccess: async () => {
      await queries.invalidateQueries();
      tell('From now on, on clients’ pages.');
    },
  });
  const wrong = (field: string) => problemOf(save.error, field);
  const beside = ['percent', 'fixed', 'most', 'tax', 'tips'].some(wrong);
  return (
    <form
      className="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <fieldset className={css.form} aria-label="Surcharge">
        <Checkbox
          className={css.whole}
          label="Ask something on top for paying by card"
          description="It is shown before paying, and stands in the receipt and in an account of its own."
          checked={s.surcharge}
          onChange={(e) => set({ surcharge: e.currentTarget.checked })}
        />
        {s.surcharge && (
          <>
            <p className={`${css.whole} soon small`} role="note" style={{ margin: 0 }}>
              Many places restrict this or forbid it, above all for private clients’ cards. Make sure that you
              may.
            </p>
            <TextInput
              className={css.half}
              label="In percent of what is paid"
              inputMode="decimal"
              value={s.percent}
              error={wrong('percent')}
              onChange={(e) => set({ percent: e.currentTarget.value })}
            />
            <TextInput
              className={css.half}
              label="and a fixed sum"
              inputMode="decimal"
              value={s.fixed}
              error={wrong('fixed')}
              onChange={(e) => set({ fixed: e.currentTarget.value })}
            />
            <TextInput
              className={css.half}
              label="but no more than"
              placeholder="no limit"
              inputMode="decimal"
              value={s.most}
              error={wrong('most')}
              onChange={(e) => set({ most: e.currentTarget.value })}
            />
            <Select
              className={css.half}
              label="Its tax"
              data={[
                { value: '', label: 'none' },
                ...taxes.filter((t) => !t.retired).map((t) => ({ value: t.id, label: t.name })),
              ]}
              value={s.tax}
              allowDeselect={false}
              error={wrong('tax')}
              onChange={(v) => set({ tax: v ?? '' })}
            />
          </>
        )}
      </fieldset>
      <fieldset className={css.form} aria-label="Tips">
        <Checkbox
          className={css.whole}
          label="Offer to give a tip"
          description="On invoices and payment links. Tips bear no tax and stand in an account of their own."
          checked={s.tips}
          onChange={(e) => set({ tips: e.currentTarget.checked })}
        />
        {s.tips && (
          <>
            <TextInput
              className={css.half}
              label="These, with blanks between"
              placeholder="5% 10% 2.00"
              value={s.given}
              error={wrong('tips')}
              onChange={(e) => set({ given: e.currentTarget.value })}
            />
            <Checkbox
              className={css.whole}
              label="or any other sum, up to what is paid"
              checked={s.free}
              onChange={(e) => set({ free: e.currentTarget.checked })}
            />
          </>
        )}
      </fieldset>
      {!beside && <Refusal error={save.error} />}
      <Button type="submit" loading={save.isPending} style={{ alignSelf: 'flex-start' }}>
        Save what is on top
      </Button>
    </form>
  );
}

/** What is asked on top for paying by card, and which tips are offered. */
export function OnTopSetting() {
  const setting = useQuery({ queryKey: ['on-top'], queryFn: () => data(api.GET('/api/on-top')) });
  const own = useQuery(business);
  return (
    <Loaded query={setting} what="what is on top">
      {(s) => (
        <>
          <h2 style={{ marginTop: 32 }}>On top of what is paid</h2>
          <OnTopForm key={s.version} setting={s} taxes={own.data?.taxes ?? []} />
        </>
      )}
    </Loaded>
  );
}
