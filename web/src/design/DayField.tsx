import { TextInput } from '@mantine/core';
import { useLooseDate } from './useLooseDate';

/** A day as people type it, in a form; the server says which one was understood. */
export function DayField({
  label,
  hint,
  lean,
  value,
  problem,
  className,
  onChange,
}: {
  label: string;
  hint?: string;
  lean: 'coming' | 'past' | 'near';
  value: string;
  problem?: string;
  className?: string;
  onChange: (day: string) => void;
}) {
  const day = useLooseDate(value, onChange, lean);
  return (
    <TextInput
      className={className}
      label={label}
      placeholder={hint}
      description={day.understood}
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      error={day.problem ?? problem}
      value={day.input.value}
      onChange={(e) => day.input.onChange(e.currentTarget.value)}
      onBlur={day.input.onBlur}
    />
  );
}
