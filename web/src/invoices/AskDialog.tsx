import { Button, Checkbox, TextInput } from '@mantine/core';
import { useRef, useState } from 'react';
import { api, data, inMark } from '../api/client';
import { newKey } from '../design/format';
import { SendDialog } from '../letters/SendDialog';
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
  const [sending, setSending] = useState(false);
  const wanted = { key: key.current, amount, words, lines };
  const path = { params: { path: { id } } };
  if (sending)
    return (
      <SendDialog
        title={`Ask for money on ${quote ? 'quote' : 'invoice'} ${number}`}
        action="Ask and send"
        look={(slip) =>
          data(api.POST('/api/documents/{id}/requests/letter', { ...path, body: { wanted, slip } }))
        }
        send={(slip) => data(api.POST('/api/documents/{id}/requests', { ...path, body: { wanted, slip } }))}
        mailOnly
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
          setSending(true);
        }}
      >
        <TextInput
          label="Amount, or a percentage of the whole"
          data-autofocus
          inputMode="decimal"
          value={amount}
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        <TextInput
          label="What for"
          placeholder={quote ? 'the deposit' : 'a part of it ahead'}
          value={words}
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
        <Button type="submit">See the letter…</Button>
      </form>
    </Dialog>
  );
}
