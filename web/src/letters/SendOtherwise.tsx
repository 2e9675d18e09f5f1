import { Button, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { copyLink } from '../design/copyLink';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import css from './Letters.module.css';

/** How something reaches a client. */
export type Way = 'mail' | 'text' | 'link' | 'code' | 'paper';

/** An issued document. @param link to its page */
export interface Given {
  id: number;
  number: string;
  link: string;
}

/** Gives a document to its client without a letter: into a chat, onto the client's own phone, into the hand. */
export function SendOtherwise({
  way,
  given,
  onClose,
}: {
  way: Exclude<Way, 'mail' | 'text'>;
  given: Given;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const note = useMutation({
    mutationFn: () => data(api.POST('/api/invoices/{id}/giving', { params: { path: { id: given.id } } })),
    onSuccess: () => {
      tell(`Invoice ${given.number} is noted as given to the client.`);
      onClose();
      void queries.invalidateQueries();
    },
  });
  return (
    <div className="form">
      {way === 'link' && (
        <>
          <TextInput
            label="The link to its page"
            description="For a chat, or whatever you write to the client with. Whoever has it sees the invoice and can pay it."
            readOnly
            value={given.link}
            onFocus={(e) => e.currentTarget.select()}
          />
          <Button
            style={{ alignSelf: 'flex-start' }}
            data-autofocus
            onClick={() => void copyLink(given.link)}
          >
            Copy the link
          </Button>
        </>
      )}
      {way === 'code' && (
        <>
          <img
            className={css.code}
            src={`/api/invoices/${given.id}/page-code`}
            alt={`Square code that leads to the page of invoice ${given.number}`}
          />
          <p className="faded" style={{ margin: 0 }}>
            The client points the phone’s camera at it, and the page opens there.
          </p>
        </>
      )}
      {way === 'paper' && (
        <Button
          style={{ alignSelf: 'flex-start' }}
          component="a"
          href={`/api/invoices/${given.id}/pdf`}
          target="_blank"
          data-autofocus
        >
          Open the PDF to print
        </Button>
      )}
      <Refusal error={note.error} />
      <div className="row-of-links">
        <Button variant="outline" loading={note.isPending} onClick={() => note.mutate()}>
          Note it as given to the client
        </Button>
        <Button variant="outline" onClick={onClose}>
          Close
        </Button>
      </div>
    </div>
  );
}
