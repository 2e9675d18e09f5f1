import { useQuery } from '@tanstack/react-query';
import type { KeyboardEvent } from 'react';
import type { Schemas } from '../api/client';
import { clientChoices } from '../api/clients';
import { useHeldKeys } from '../design/useHeldKeys';

type Choice = Schemas['ClientChoice'];

/**
 * Clients of whom a part of what is known was typed.
 *
 * @param asked what was typed; empty for nobody in particular
 * @param choose what a quick Enter does, once it is known who fits
 */
export function useFittingClients(asked: string, choose: (client: Choice) => void, leaveOut?: number) {
  const choices = useQuery(clientChoices(asked));
  const fresh = choices.isError || (choices.isSuccess && !choices.isPlaceholderData);
  const found = (choices.data ?? []).filter((c) => c.id !== leaveOut);
  // While the answer is to fewer letters it names other clients: a quick Enter waits for the one to all of them.
  const { hold } = useHeldKeys(fresh, (keys) => {
    const downs = keys.filter((k) => k === 'ArrowDown').length;
    const wanted = found[Math.min(downs, found.length - 1)];
    if (wanted && keys.includes('Enter')) choose(wanted);
  });
  return {
    found,
    fresh,
    /** Whether the key waits. Of nobody in particular there is nobody to wait for: Enter before the list is there chooses no one. */
    waits: (event: KeyboardEvent) => asked !== '' && hold(event, (k) => k === 'Enter' || k === 'ArrowDown'),
  };
}
