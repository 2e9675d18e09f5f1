import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { inMark, problemOf, type Schemas } from '../api/client';

export type LateFee = Schemas['TypedLateFeePolicy'];

export const noLateFee: LateFee = {
  kind: 'none',
  amount: '',
  grace: '7',
  repeat: 'once',
  every: '',
  cap: '',
  smallest: '',
  deposits: false,
  taxed: false,
};

/** A policy that is kept, with its numbers as the business types them. */
export const policyInMark = (p: LateFee): LateFee => ({
  ...p,
  amount: inMark(p.amount),
  cap: inMark(p.cap),
  smallest: inMark(p.smallest),
});

/** The fields of a late-fee policy. @param path of the fields in a refusal, such as `policy.` */
export function LateFeeFields({
  value,
  onChange,
  error,
  path,
}: {
  value: LateFee;
  onChange: (next: LateFee) => void;
  error: unknown;
  path: string;
}) {
  const set = <K extends keyof LateFee>(field: K, next: LateFee[K]) => onChange({ ...value, [field]: next });
  const text = (
    field: 'amount' | 'grace' | 'every' | 'cap' | 'smallest',
    label: string,
    placeholder = '',
  ) => (
    <TextInput
      label={label}
      placeholder={placeholder}
      value={value[field]}
      error={problemOf(error, path + field)}
      onChange={(e) => set(field, e.currentTarget.value)}
    />
  );
  return (
    <>
      <NativeSelect
        label="What is charged on an installment that is late"
        value={value.kind}
        error={problemOf(error, `${path}kind`)}
        onChange={(e) => set('kind', e.currentTarget.value)}
        data={[
          { value: 'none', label: 'nothing' },
          { value: 'percent', label: 'a percentage of what is overdue' },
          { value: 'flat', label: 'a flat sum' },
        ]}
      />
      {value.kind !== 'none' && (
        <>
          {text(
            'amount',
            value.kind === 'flat' ? 'The sum' : 'The percentage',
            value.kind === 'flat' ? '12.50' : '1%',
          )}
          {text('grace', 'Days of grace')}
          <NativeSelect
            label="How often"
            value={value.repeat}
            error={problemOf(error, `${path}repeat`)}
            onChange={(e) => set('repeat', e.currentTarget.value)}
            data={[
              { value: 'once', label: 'once' },
              { value: 'days', label: 'again every so many days' },
              { value: 'monthly', label: 'again every month' },
            ]}
          />
          {value.repeat === 'days' && text('every', 'Days between two fees')}
          {text('cap', 'At most, on one installment', '40.00 or 5%, or empty')}
          {text('smallest', 'Nothing below', 'empty for any sum')}
          <Checkbox
            label="A deposit bears late fees too"
            checked={value.deposits}
            onChange={(e) => set('deposits', e.currentTarget.checked)}
          />
          <Checkbox
            label="Late fees bear tax, as the invoice does"
            description="Only where the tax rules of your country say so. A percentage or sum is then without the tax, or contains it where the invoice’s prices do."
            checked={value.taxed}
            onChange={(e) => set('taxed', e.currentTarget.checked)}
          />
        </>
      )}
    </>
  );
}
