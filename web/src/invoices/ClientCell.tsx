import { Combobox, InputBase, useCombobox } from '@mantine/core';
import { type KeyboardEvent, useEffect, useState } from 'react';
import type { Schemas } from '../api/client';
import { useFittingClients } from '../clients/useFittingClients';
import { type Change, FieldProblem } from './fields';
import css from './Sheet.module.css';
import type { Typed } from './useDraft';

/** No client has this number. */
const NEW = -1;

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
  const list = useCombobox({ onDropdownClose: () => list.resetSelectedOption() });
  /** What is being typed; null while the name of whoever was chosen stands there. */
  const [find, setFind] = useState<string | null>(null);
  const [picked, setPicked] = useState<{ id: number; name: string }>();
  const own = client && client.id === typed.clientId ? client : undefined;
  const name = own?.name ?? (picked && picked.id === typed.clientId ? picked.name : '');
  const asked = find === name ? '' : (find ?? '');
  const choose = (chosen: { id: number; name: string } | undefined) => {
    list.closeDropdown();
    setFind(null);
    if (!chosen) return;
    if (chosen.id === NEW) return onNewClient();
    setPicked(chosen);
    change((t) => ({ ...t, clientId: chosen.id }));
    onChosen(chosen.id);
  };
  const { found, fresh, waits } = useFittingClients(asked, choose);
  const listed = own && !found.some((c) => c.id === own.id) ? [own, ...found] : found;
  const options = [
    ...listed.slice(0, 40).map((c) => ({ id: c.id, name: c.name })),
    { id: NEW, name: '+ A new client' },
  ];
  // What is marked is what Enter takes: the first of each new answer, whichever stood there before.
  const { dropdownOpened, selectFirstOption } = list;
  useEffect(() => {
    if (dropdownOpened && asked !== '' && fresh) selectFirstOption();
  }, [dropdownOpened, asked, fresh, selectFirstOption]);
  const keys = (event: KeyboardEvent) => {
    if (waits(event)) return;
    const marked = list.getSelectedOptionIndex();
    if (event.key !== 'Enter' || !list.dropdownOpened || (marked < 0 && asked === '')) return;
    event.preventDefault();
    event.stopPropagation();
    choose(options[Math.max(marked, 0)]);
  };
  return (
    <div className="field">
      <Combobox
        store={list}
        width={320}
        position="bottom-start"
        onOptionSubmit={(id) => choose(options.find((o) => String(o.id) === id))}
      >
        <Combobox.Target withExpandedAttribute>
          <InputBase
            label="To"
            placeholder="Type a part of the name…"
            variant="unstyled"
            classNames={{ input: css.client ?? '', label: css.label ?? '' }}
            autoFocus={typed.clientId === null}
            autoComplete="off"
            value={find ?? name}
            aria-invalid={Boolean(problem)}
            onChange={(event) => {
              setFind(event.currentTarget.value);
              list.openDropdown();
            }}
            onClick={() => list.openDropdown()}
            onBlur={() => {
              list.closeDropdown();
              setFind(null);
            }}
            onKeyDownCapture={keys}
          />
        </Combobox.Target>
        <Combobox.Dropdown>
          <Combobox.Options mah={320} className={css.choices} aria-label="Clients">
            {options.map((o) => (
              <Combobox.Option
                key={o.id}
                value={String(o.id)}
                active={o.id === typed.clientId}
                aria-selected={o.id === typed.clientId}
              >
                {o.name}
              </Combobox.Option>
            ))}
          </Combobox.Options>
        </Combobox.Dropdown>
      </Combobox>
      <FieldProblem text={problem} />
      {own && (
        <p className={css.address}>
          {[own.contact, own.address.replace(/\n/g, ', ')].filter(Boolean).join(', ')}
        </p>
      )}
    </div>
  );
}
