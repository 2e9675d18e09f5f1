import { Button, PasswordInput, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Refusal } from '../design/States';

/** Signing in; inside a dialog where a session ended while somebody was writing. */
export function SignIn({
  onDone,
  inside = false,
}: {
  onDone: (session: Schemas['Session']) => void;
  inside?: boolean;
}) {
  const [email, setEmail] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const signIn = useMutation({
    mutationFn: () => data(api.POST('/api/session', { body: { email, passphrase } })),
    onSuccess: onDone,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate();
  };
  const wrong = problemOf(signIn.error, 'passphrase');
  const form = (
    <form className="form" onSubmit={submit}>
      <TextInput
        label="E-mail address"
        type="email"
        autoComplete="username"
        required
        value={email}
        onChange={(e) => setEmail(e.currentTarget.value)}
      />
      <PasswordInput
        label="Passphrase"
        autoComplete="current-password"
        required
        value={passphrase}
        error={wrong}
        visibilityToggleButtonProps={{ 'aria-label': 'Show the passphrase' }}
        onChange={(e) => setPassphrase(e.currentTarget.value)}
      />
      {!wrong && <Refusal error={signIn.error} />}
      <Button type="submit" loading={signIn.isPending}>
        Sign in
      </Button>
    </form>
  );
  return inside ? (
    form
  ) : (
    <main className="narrow">
      <h1>Rustic Quill</h1>
      {form}
    </main>
  );
}
