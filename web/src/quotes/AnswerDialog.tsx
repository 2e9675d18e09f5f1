import { Button, Checkbox, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { money } from '../design/format';
import { Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

/** An answer that came otherwise than on the page: by telephone, on paper. */
export function AnswerDialog({
  id,
  number,
  accepts,
  options,
  onClose,
}: {
  id: number;
  number: string;
  accepts: boolean;
  options: Schemas['QuoteOption'][];
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const [reason, setReason] = useState('');
  const [ticked, setTicked] = useState(options.filter((o) => o.ticked).map((o) => o.place));
  const path = { params: { path: { id } } };
  const note = useMutation({
    mutationFn: () =>
      data(
        accepts
          ? api.POST('/api/quotes/{id}/acceptance', { ...path, body: { name, ticked } })
          : api.POST('/api/quotes/{id}/declining', { ...path, body: { name, reason } }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  });
  return (
    <Dialog onClose={onClose} title={accepts ? `${number} was accepted` : `${number} was declined`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!note.isPending) note.mutate();
        }}
      >
        <TextInput
          label={accepts ? 'Who accepted it, and how' : 'Who declined it, and how'}
          placeholder="Ms Example, on the telephone"
          data-autofocus
          value={name}
          error={problemOf(note.error, 'name')}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        {accepts &&
          options.map((o) => (
            <Checkbox
              key={o.place}
              label={`${o.description}, ${money(o.net)}`}
              checked={ticked.includes(o.place)}
              onChange={(e) =>
                setTicked((t) => (e.currentTarget.checked ? [...t, o.place] : t.filter((p) => p !== o.place)))
              }
            />
          ))}
        {!accepts && (
          <Textarea
            label="Why"
            autosize
            value={reason}
            error={problemOf(note.error, 'reason')}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
        )}
        <Refusal error={problemOf(note.error, 'name') ? null : note.error} />
        <Button type="submit" loading={note.isPending}>
          {accepts ? 'Mark as accepted' : 'Mark as declined'}
        </Button>
      </form>
    </Dialog>
  );
}
