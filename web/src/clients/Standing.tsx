import { Button, Menu } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import { Dialog } from '../design/Dialog';
import { ClientSelect } from './ClientSelect';

type Account = Schemas['AccountView'];

/** Makes this record a part of another one of the same client. */
function Merging({ client, onClose }: { client: Schemas['Client']; onClose: () => void }) {
  const [into, setInto] = useState<number | null>(null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const merge = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/clients/{id}/merging', {
          params: { path: { id: client.id } },
          body: { version: client.version, into: into ?? 0 },
        }),
      ),
    onSuccess: async (merged) => {
      await queries.invalidateQueries();
      tell(`All of ${client.name} stands with ${merged.name} now.`);
      onClose();
      void navigate(`/clients/${merged.id}`);
    },
  });
  return (
    <Dialog onClose={onClose} title={`Merge ${client.name} into another record`}>
      <div className="form">
        <p style={{ margin: 0 }}>
          All invoices, payments, letters and entries of {client.name} move to the other record, whose name,
          addresses and terms stay. Papers that were issued keep the name they were written to. This cannot be
          undone.
        </p>
        <ClientSelect
          label="The record that stays"
          placeholder="type a part of its name"
          leaveOut={client.id}
          chosen={into}
          onChoose={setInto}
          error={problemOf(merge.error, 'into')}
          nothingFoundMessage="No other client fits"
        />
        {!problemOf(merge.error, 'into') && <Refusal error={merge.error} />}
        <Button disabled={!into} loading={merge.isPending} onClick={() => merge.mutate()}>
          Merge
        </Button>
      </div>
    </Dialog>
  );
}

/** What is done with a client's record less often. */
export function Standing({ account }: { account: Account }) {
  const { client, archived } = account;
  const [merging, setMerging] = useState(false);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const archive = useMutation({
    mutationFn: (next: boolean) =>
      data(
        api.PUT('/api/clients/{id}/archived', {
          params: { path: { id: client.id } },
          body: { version: client.version, archived: next },
        }),
      ),
    onSuccess: (_, next) => {
      void queries.invalidateQueries();
      if (next)
        tell(`${client.name} is archived: in the list under “archived”, and offered on no new invoice.`);
    },
  });
  const remove = useMutation({
    mutationFn: () =>
      data(
        api.DELETE('/api/clients/{id}', {
          params: { path: { id: client.id }, query: { version: client.version } },
        }),
      ),
    onSuccess: async () => {
      // The record goes before anything is asked anew: it is none any more.
      void navigate('/clients');
      await queries.invalidateQueries();
    },
  });
  const error = archive.error ?? remove.error;
  const idle = account.invoices.length === 0 && account.rows.length === 0;
  return (
    <>
      <Menu position="bottom-end" withinPortal>
        <Menu.Target>
          <Button variant="outline">More</Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item component="a" href={`/api/clients/${client.id}/card.vcf`}>
            Save as a card (vCard)
          </Menu.Item>
          <Menu.Item onClick={() => setMerging(true)}>Merge into another record…</Menu.Item>
          <Menu.Item onClick={() => archive.mutate(!archived)}>
            {archived ? 'Take out of the archive' : 'Archive'}
          </Menu.Item>
          {idle && <Menu.Item onClick={() => remove.mutate()}>Delete</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
      {error && (
        <Dialog
          onClose={() => {
            archive.reset();
            remove.reset();
          }}
          title="Not yet"
        >
          <Refusal error={error} />
        </Dialog>
      )}
      {merging && <Merging client={client} onClose={() => setMerging(false)} />}
    </>
  );
}
