import { NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { namedPlans } from '../api/business';
import type { Schemas } from '../api/client';

type Choice = Schemas['PlanChoice'];

/** By which plan something is reminded of. @param usual what holds where nothing is chosen, in words */
export function PlanSelect({
  label,
  usual,
  choice,
  onChoose,
}: {
  label: string;
  usual: string;
  choice: Choice;
  onChoose: (choice: Choice) => void;
}) {
  const plans = useQuery(namedPlans);
  return (
    <NativeSelect
      label={label}
      size="xs"
      maw={340}
      value={choice.use === 'NAMED' ? String(choice.plan) : choice.use}
      onChange={(e) => {
        const { value } = e.currentTarget;
        onChoose(
          value === 'USUAL' || value === 'NONE'
            ? { use: value, plan: null }
            : { use: 'NAMED', plan: Number(value) },
        );
      }}
      data={[
        { value: 'USUAL', label: usual },
        ...(plans.data ?? []).map((p) => ({ value: String(p.id), label: p.name })),
        { value: 'NONE', label: 'none: no reminder goes' },
      ]}
    />
  );
}
