import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { type Look, plainSlip, type Slip } from './slip';

/** A letter that is written once before its dialog opens: what is wrong is said beside what was typed, which stays. */
export function useLookFirst(look: (slip: Slip) => Promise<Look>) {
  const [ready, setReady] = useState(false);
  const check = useMutation({ mutationFn: () => look(plainSlip), onSuccess: () => setReady(true) });
  return {
    look,
    ready,
    error: check.error,
    isPending: check.isPending,
    begin: () => check.mutate(),
    back: () => setReady(false),
  };
}
