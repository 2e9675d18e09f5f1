import { Button, Checkbox, TextInput } from '@mantine/core';
import { useRef, useState } from 'react';
import { api, data, inMark, problemOf } from '../api/client';
import { newKey } from '../design/format';
import { SendDialog } from '../letters/SendDialog';
import { useLookFirst } from '../letters/useLookFirst';
import { Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

/** Asks for money before it falls due: how much and what for, then the letter. Nothing is booked until money comes. */
export function AskDialog({
  id,
  number,
  quote,
  suggested,
  onClose,
}: {
  id: number;
  number: string;
  quote: boolean;
  suggested: string;
  onClose: () => void;
}) {
  const key = useRef(newKey());
  const [amount, setAmount] = useState(inMark(suggested));
  const [words, setWords] = useState('');
  const [lines, setLines] = useState(false);
  const wanted = { key: key.current, amount, words, lines };
  const path = { params: { path: { id } } };
  const letter = useLookFirst((slip) =>
    data(api.POST('/api/documents/{id}/requests/letter', { ...path, body: { wanted, slip } })),
  );
  const named = problemOf(letter.error, 'amount') ?? problemOf(letter.error, 'words');
  if (letter.ready)
    return (
      <SendDialog
        title={`Ask for money on ${quote ? 'quote' : 'invoice'} ${number}`}
        action="Ask and send"
        look={letter.look}
        send={(slip) => data(api.POST('/api/documents/{id}/requests', { ...path, body: { wanted, slip } }))}
        mailOnly
        onBack={letter.back}
        onClose={onClose}
      />
    );
  return (
    <Dialog onClose={onClose} title={`Ask for money on ${number}`}>
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          letter.begin();
        }}
      >
        <TextInput
          label="Amount, or a percentage of the whole"
          data-autofocus
          inputMode="decimal"
          onFocus={(e) => e.currentTarget.select()}
          value={amount}
          error={problemOf(letter.error, 'amount')}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        <TextInput
          label="What for"
          placeholder={quote ? 'the deposit' : 'a part of it ahead'}
          value={words}
          error={problemOf(letter.error, 'words')}
          maxLength={200}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <Checkbox
          label="The letter shows all lines, not one sentence"
          checked={lines}
          onChange={(e) => setLines(e.currentTarget.checked)}
        />
        <p className="small faded" style={{ margin: 0 }}>
          {quote
            ? 'It is asked for whole. What comes is booked as a deposit; the invoice for the work deducts it.'
            : 'Its due dates stay as they are. What comes settles the invoice.'}
        </p>
        {!named && <Refusal error={letter.error} />}
        <Button type="submit" loading={letter.isPending}>
          See the letter…
        </Button>
      </form>
    </Dialog>
  );
}
