import { Button, Checkbox, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { savedSetting } from '../api/clients';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';

type Setting = Schemas['SavedSetting'];

function KeptForm({ setting }: { setting: Setting }) {
  const queries = useQueryClient();
  const [offered, setOffered] = useState(setting.offered);
  const [days, setDays] = useState(String(setting.laterDays));
  const [typed, setTyped] = useState('');
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/api/saved-methods/setting', {
          body: { offered, laterDays: Number(days), version: setting.version },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      tell('From now on. What is kept stays kept until it is removed.');
    },
  });
  return (
    <form
      className="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        // Nothing but digits is a number of days; the server says which.
        setTyped(/^\d{1,3}$/.test(days.trim()) ? '' : 'must be a number of days, or 0 for not at all');
        if (/^\d{1,3}$/.test(days.trim())) save.mutate();
      }}
    >
      <Checkbox
        label="Clients may let a card or a bank debit mandate be kept"
        description="They tick it when they pay, or are asked for it; they see and remove it on their pages. The card company keeps the number; you see brand, last four digits and expiry."
        checked={offered}
        onChange={(e) => setOffered(e.currentTarget.checked)}
      />
      <TextInput
        label="They may have it taken later: so many days after it is due"
        description="0 for not at all. Until the day that they choose no reminder goes and no late fee comes."
        inputMode="numeric"
        value={days}
        error={typed || problemOf(save.error, 'laterDays')}
        onChange={(e) => setDays(e.currentTarget.value)}
      />
      {!problemOf(save.error, 'laterDays') && <Refusal error={save.error} />}
      <Button type="submit" loading={save.isPending} style={{ alignSelf: 'flex-start' }}>
        Save what may be kept
      </Button>
    </form>
  );
}

/** Whether cards and mandates are kept, and for how long a payment can be planned. */
export function KeptMethods() {
  const setting = useQuery(savedSetting);
  return (
    <Loaded query={setting} what="what may be kept">
      {(s) => (
        <>
          <h2 style={{ marginTop: 32 }}>Kept for later payments</h2>
          <KeptForm key={s.version} setting={s} />
        </>
      )}
    </Loaded>
  );
}
