import { PasswordInput, type PasswordInputProps } from '@mantine/core';
import { api, data } from '../api/client';

/** Proves who is there before what matters is changed; nothing where nothing was typed, and the server says what it wants. */
export const prove = async (passphrase: string) => {
  if (passphrase) await data(api.POST('/api/session/proof', { body: { passphrase } }));
};

/** The passphrase, asked for again. */
export function PassphraseField(props: PasswordInputProps) {
  return (
    <PasswordInput
      label="Your passphrase, once more"
      autoComplete="current-password"
      visibilityToggleButtonProps={{ 'aria-label': 'Show the passphrase' }}
      {...props}
    />
  );
}
