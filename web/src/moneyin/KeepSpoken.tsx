import { Checkbox, TextInput, Textarea } from '@mantine/core';

/** What a client said of a card or account that is kept. @param most so much at a time, as typed */
export type Spoken = { collects: boolean; most: string; said: string };

/** Keeping what pays for later, as a client says in person or by telephone. */
export function KeepSpoken({
  keep,
  wrong,
  onChange,
}: {
  /** Null where nothing is kept. */
  keep: Spoken | null;
  wrong: (field: 'said' | 'most') => string | undefined;
  onChange: (keep: Spoken | null) => void;
}) {
  return (
    <>
      <Checkbox
        label="Keep this card or account for later, as the client says"
        checked={keep !== null}
        onChange={(e) => onChange(e.currentTarget.checked ? { collects: false, most: '', said: '' } : null)}
      />
      {keep && (
        <>
          <Textarea
            label="What the client said"
            description="Who said so, when and how: it is what you have in hand if it is doubted later."
            autosize
            maxLength={600}
            data-path="keep.said"
            value={keep.said}
            error={wrong('said')}
            onChange={(e) => onChange({ ...keep, said: e.currentTarget.value })}
          />
          <Checkbox
            label="We may take open sums of their invoices from it"
            checked={keep.collects}
            onChange={(e) => onChange({ ...keep, collects: e.currentTarget.checked })}
          />
          {keep.collects && (
            <TextInput
              label="So much at a time, at most"
              placeholder="every open sum"
              inputMode="decimal"
              data-path="keep.most"
              value={keep.most}
              error={wrong('most')}
              onChange={(e) => onChange({ ...keep, most: e.currentTarget.value })}
            />
          )}
        </>
      )}
    </>
  );
}
