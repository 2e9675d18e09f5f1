import { Combobox, useCombobox } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { type ClipboardEvent, type KeyboardEvent, useState } from 'react';
import { choicesOf } from '../api/catalogue';
import type { Schemas } from '../api/client';
import { plain } from '../design/format';
import { useHeldKeys } from '../design/useHeldKeys';
import css from './Sheet.module.css';
import { Thumb } from '../catalogue/Thumb';

export type Choice = Schemas['LineChoice'];
const MOST = 8;

/** What a line is for: typed, or found in the catalogue by any part of it. */
export function WhatCell({
  place,
  value,
  own,
  currency,
  hint,
  invalid,
  onText,
  onChoose,
  onPaste,
  onKeyDown,
  onFocus,
}: {
  place: number;
  value: string;
  /** Whether the line was made of an item already, so that nothing is offered while its text is changed. */
  own: boolean;
  currency: string;
  hint: string;
  invalid: boolean;
  onText: (text: string) => void;
  onChoose: (choice: Choice) => void;
  onPaste: (event: ClipboardEvent) => void;
  onKeyDown: (event: KeyboardEvent) => void;
  onFocus?: () => void;
}) {
  const list = useCombobox({ onDropdownClose: () => list.resetSelectedOption() });
  const [typing, setTyping] = useState(false);
  const [find] = useDebouncedValue(value.trim(), 120);
  const asks = typing && !own && find.length > 0 && !find.includes('\n');
  const found = useQuery({ ...choicesOf(find, currency), enabled: asks });
  const wanted = typing && !own && value.trim() !== '' && !value.includes('\n');
  // An answer to fewer letters offers other things: it is neither shown nor chosen from.
  const fresh =
    !wanted || found.isError || (find === value.trim() && found.isSuccess && !found.isPlaceholderData);
  const options = wanted && fresh ? (found.data ?? []).slice(0, MOST) : [];
  const open = list.dropdownOpened && options.length > 0;
  const choose = (choice: Choice | undefined) => {
    list.closeDropdown();
    setTyping(false);
    if (choice) onChoose(choice);
  };
  const { hold } = useHeldKeys(fresh, (keys) => {
    const downs = keys.filter((k) => k === 'ArrowDown').length;
    const at = Math.min(downs, options.length) - 1;
    if (at < 0) return;
    if (keys.includes('Enter')) choose(options[at]);
    else list.selectOption(at);
  });
  const key = (event: KeyboardEvent) => {
    if (hold(event, (k, before) => k === 'ArrowDown' || (k === 'Enter' && before.length > 0))) return;
    if (open && !event.altKey && !event.ctrlKey && !event.metaKey) {
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        if (event.key === 'ArrowDown') list.selectNextOption();
        else list.selectPreviousOption();
        return;
      }
      if (event.key === 'Enter' && list.getSelectedOptionIndex() >= 0) {
        event.preventDefault();
        return choose(options[list.getSelectedOptionIndex()]);
      }
      if (event.key === 'Escape') {
        event.preventDefault();
        return list.closeDropdown();
      }
    }
    onKeyDown(event);
  };
  return (
    <Combobox
      store={list}
      withinPortal
      position="bottom-start"
      width={360}
      onOptionSubmit={(at) => choose(options[Number(at)])}
    >
      <Combobox.Target withAriaAttributes={false} withKeyboardNavigation={false}>
        <textarea
          className="cell grows"
          rows={1}
          data-cell={`${place}-description`}
          aria-label={`What, line ${place + 1}`}
          aria-invalid={invalid}
          aria-describedby={open ? `found-${place}` : undefined}
          placeholder={hint}
          value={value}
          onChange={(e) => {
            setTyping(true);
            list.openDropdown();
            onText(e.target.value);
          }}
          onFocus={onFocus}
          onBlur={() => list.closeDropdown()}
          onPaste={onPaste}
          onKeyDown={key}
        />
      </Combobox.Target>
      <Combobox.Dropdown hidden={!open}>
        <p className={css.heard} id={`found-${place}`} role="status">
          {open && `${options.length} in the catalogue; arrow down to choose.`}
        </p>
        <Combobox.Options>
          {options.map((c, i) => {
            const price = !c.bundle && c.lines[0]?.unitPrice;
            return (
              <Combobox.Option key={`${c.bundle}-${c.id}`} value={String(i)}>
                <span className={css.option}>
                  <span>
                    {c.picture && <Thumb picture={c.picture} />}
                    {c.bundle ? <b>Bundle: {c.name}</b> : c.name}
                  </span>
                  <span className="figures">{price ? plain({ amount: price }) : ''}</span>
                </span>
                {c.under && <span className="faded small">{c.under}</span>}
              </Combobox.Option>
            );
          })}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
