import { Select, type SelectProps } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useState } from 'react';
import { useFittingClients } from './useFittingClients';

type Props = {
  /** Who stands there at first, with its name. */
  begin?: { id: number; name: string } | null;
  chosen: number | null;
  leaveOut?: number;
  onChoose: (id: number | null) => void;
} & Pick<
  SelectProps,
  'className' | 'clearable' | 'error' | 'label' | 'nothingFoundMessage' | 'placeholder'
> & { 'data-autofocus'?: true | undefined };

/** One of the clients, by a part of its name. The first that fits what was typed is marked, and is what Enter takes. */
export function ClientSelect({ begin = null, chosen, leaveOut, onChoose, ...rest }: Props) {
  const [picked, setPicked] = useState(begin);
  const [find, setFind] = useState(begin?.name ?? '');
  const [opened, list] = useDisclosure();
  const asked = find === picked?.name ? '' : find;
  const choose = (client: { id: number; name: string } | null) => {
    setPicked(client);
    onChoose(client?.id ?? null);
    list.close();
  };
  const { found, fresh, waits } = useFittingClients(asked, choose, leaveOut);
  // Whoever was chosen stays among them, or its name would go: below those that fit what is typed now.
  const listed = picked && !found.some((c) => c.id === picked.id) ? [...found, picked] : found;
  return (
    <Select
      searchable
      openOnFocus={false}
      data={listed.map((c) => ({ value: String(c.id), label: c.name }))}
      filter={({ options }) => options}
      searchValue={find}
      onSearchChange={(text) => {
        setFind(text);
        if (text === '' && rest.clearable && chosen !== null) choose(null);
      }}
      value={chosen === null ? null : String(chosen)}
      onChange={(id) => choose(listed.find((c) => String(c.id) === id) ?? null)}
      dropdownOpened={opened}
      onDropdownOpen={list.open}
      onDropdownClose={list.close}
      selectFirstOptionOnChange={fresh && asked !== ''}
      onKeyDownCapture={waits}
      {...rest}
    />
  );
}
