import { Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { clientChoices } from '../api/clients';
import { useHeldKeys } from '../design/useHeldKeys';
import { type Change, FieldProblem } from './fields';
import css from './Sheet.module.css';
import type { Typed } from './useDraft';

const NEW = 'new';

/** Whom it is for: found by any part of what is known of a client, shown as it will be printed. */
export function ClientCell({
  typed,
  client,
  change,
  problem,
  onChosen,
  onNewClient,
}: {
  typed: Typed;
  client: Schemas['Client'] | undefined;
  change: Change;
  problem: string | undefined;
  onChosen: (id: number) => void;
  onNewClient: () => void;
}) {
  const [find, setFind] = useState('');
  const own = client && client.id === typed.clientId ? client : undefined;
  const asked = find === own?.name ? '' : find;
  const choices = useQuery(clientChoices(asked));
  const fresh = choices.isError || (choices.isSuccess && !choices.isPlaceholderData);
  const found = choices.data ?? [];
  const listed = own && !found.some((c) => c.id === own.id) ? [own, ...found] : found;
  const data = [
    ...listed.slice(0, 40).map((c) => ({ value: String(c.id), label: c.name })),
    { value: NEW, label: '+ A new client' },
  ];
  const choose = (id: number) => {
    change((t) => ({ ...t, clientId: id }));
    onChosen(id);
  };
  // While the answer is to fewer letters it names other clients: a quick Enter waits for the one to all of them.
  const { hold } = useHeldKeys(fresh, (keys) => {
    const downs = keys.filter((k) => k === 'ArrowDown').length;
    const wanted = found[Math.min(downs, found.length - 1)];
    if (wanted && keys.includes('Enter')) choose(wanted.id);
  });
  return (
    <div className="field">
      <Select
        label="To"
        placeholder="Type a part of the name…"
        variant="unstyled"
        classNames={{ input: css.client ?? '', label: css.label ?? '' }}
        searchable
        autoFocus={typed.clientId === null}
        selectFirstOptionOnChange
        openOnFocus={false}
        data={data}
        // What fits was found by the server, by mail, telephone or contact too.
        filter={({ options }) => options}
        searchValue={find}
        onSearchChange={setFind}
        value={typed.clientId === null ? null : String(typed.clientId)}
        allowDeselect={false}
        aria-invalid={Boolean(problem)}
        rightSection={<span />}
        rightSectionWidth={0}
        maxDropdownHeight={320}
        comboboxProps={{ width: 320, position: 'bottom-start' }}
        onChange={(chosen) => {
          if (chosen === NEW) return onNewClient();
          if (chosen) choose(Number(chosen));
        }}
        onKeyDownCapture={(event) => hold(event, (k) => k === 'Enter' || k === 'ArrowDown')}
      />
      <FieldProblem text={problem} />
      {own && (
        <p className={css.address}>
          {[own.contact, own.address.replace(/\n/g, ', ')].filter(Boolean).join(', ')}
        </p>
      )}
    </div>
  );
}
