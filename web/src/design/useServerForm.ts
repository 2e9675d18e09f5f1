import { useForm, type UseFormReturnType } from '@mantine/form';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ApiError, type Problem, told } from '../api/client';

/**
 * A form whose rules are the server's. What it refuses stands beside the fields that it concerns, the first of which
 * gets the cursor; what belongs to no field on screen stands at the end. What was typed stays.
 */
export function useServerForm<Values extends Record<string, unknown>, Answer>({
  initial,
  send,
  onDone,
}: {
  initial: Values;
  send: (values: Values) => Promise<Answer>;
  onDone: (answer: Answer, form: UseFormReturnType<Values>) => void | Promise<void>;
}) {
  const form = useForm<Values>({ initialValues: initial });
  const [elsewhere, setElsewhere] = useState<unknown>(null);
  const save = useMutation({
    mutationFn: () => send(form.getValues()),
    onSuccess: async (answer) => {
      setElsewhere(null);
      await onDone(answer, form);
    },
    onError: (error) => refuse(error),
  });
  const refuse = (error: unknown) => {
    const problems = error instanceof ApiError ? error.problems : [];
    form.setErrors(Object.fromEntries(problems.map((p) => [p.field, p.message])));
    // The fields are drawn with their errors first.
    window.setTimeout(() => {
      const shown = problems.map(fieldOf).filter((f) => f !== null);
      const lost = problems.filter((p) => !fieldOf(p));
      setElsewhere(
        problems.length === 0 ? error : lost.length > 0 ? new ApiError(422, told(lost), lost) : null,
      );
      shown[0]?.focus();
    });
  };
  return {
    form,
    save,
    /** What no field on screen could show. */
    elsewhere,
    /** What a field is given. */
    field: (path: string) => form.getInputProps(path),
    /**
     * What a field within a list is given: the server names its place in brackets.
     *
     * @param told how the server calls the list, where it calls it otherwise
     */
    at: (list: string, place: number, name: string, told = list) => ({
      ...form.getInputProps(`${list}.${place}.${name}`),
      'data-path': `${told}[${place}].${name}`,
      error: form.errors[`${told}[${place}].${name}`],
    }),
    tick: (path: string) => form.getInputProps(path, { type: 'checkbox' }),
    submit: (event: FormEvent) => {
      event.preventDefault();
      event.stopPropagation();
      form.clearErrors();
      setElsewhere(null);
      save.mutate();
    },
  };
}

const fieldOf = (p: Problem) => document.querySelector<HTMLElement>(`[data-path="${CSS.escape(p.field)}"]`);
