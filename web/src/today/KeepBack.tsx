import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { problemOf } from '../api/client';

/** What is done by itself waits until a day, or until somebody lets it go. */
export function KeepBack({
  keep,
}: {
  keep: { mutate: (until: string) => void; error: unknown; isPending: boolean };
}) {
  const [day, setDay] = useState('');
  return (
    <span
      className="mute"
      style={{ display: 'inline-flex', flexWrap: 'wrap', gap: 12, alignItems: 'center' }}
    >
      <TextInput
        size="xs"
        label="Kept back until"
        placeholder="31 March; empty for no end"
        value={day}
        error={problemOf(keep.error, 'until')}
        onChange={(e) => setDay(e.currentTarget.value)}
      />
      <button
        type="button"
        className="link"
        style={{ whiteSpace: 'nowrap' }}
        disabled={keep.isPending}
        onClick={() => keep.mutate(day)}
      >
        Keep everything back
      </button>
    </span>
  );
}
