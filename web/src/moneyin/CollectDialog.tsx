import { Button, Checkbox, Radio } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useReceipts } from '../api/business';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { isZero, money } from '../design/format';
import { Refusal } from '../design/States';
import { savedOf } from '../api/clients';
import { KeepSpoken, type Spoken } from './KeepSpoken';
import { partWords } from './partWords';

/** The card company's page, to be opened here or by a telephone. */
export function CardPage({ page, hold }: { page: Schemas['PayPage']; hold: boolean }) {
  const receipts = useReceipts();
  const there = useRef<HTMLAnchorElement>(null);
  // It takes the place of the form that had the focus.
  useEffect(() => there.current?.focus(), []);
  return (
    <div className="form">
      <p style={{ margin: 0 }}>The card company’s page is ready. The number is typed there, never here.</p>
      <Button component="a" href={page.address} target="_blank" rel="noreferrer" ref={there}>
        Open its page here
      </Button>
      <p style={{ marginBottom: 0 }}>Or let the client point a telephone at this:</p>
      <img src={page.code} alt="Square code that leads to the card company’s page" width={180} height={180} />
      <p className="faded small" style={{ marginBottom: 0 }}>
        {hold
          ? 'Once it is held it stands under Money in: take it, or less of it, within seven days.'
          : `Once it is paid it stands under Money in${receipts ? ', and the receipt goes by itself' : ''}.`}
      </p>
    </div>
  );
}

/** A card that is at hand: the card company's page is opened here, or shown as a code for the client's own telephone. */
export function CollectDialog({
  id,
  clientId,
  number,
  parts,
  onClose,
}: {
  id: number;
  clientId: number | null;
  number: string;
  /** What is open of an invoice; none for a quote, of which what is asked for is taken. */
  parts: Schemas['Part'][];
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const open = parts.filter((p) => !isZero(p.open));
  const [which, setWhich] = useState(String(open[0]?.id ?? ''));
  const [hold, setHold] = useState(false);
  const possible = useQuery({ ...savedOf(clientId ?? 0), enabled: clientId !== null }).data?.possible;
  const [keep, setKeep] = useState<Spoken | null>(null);
  const begin = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/documents/{id}/collections', {
          params: { path: { id } },
          body: {
            installments: which === 'all' || which === '' ? [] : [Number(which)],
            hold,
            keep: keep && { collects: keep.collects, most: keep.most },
            said: keep && keep.said,
          },
        }),
      ),
    onSettled: () => queries.invalidateQueries(),
  });
  const page = begin.data;
  return (
    <Dialog onClose={onClose} title={`A card for ${number}`}>
      {page ? (
        <CardPage page={page} hold={hold} />
      ) : (
        <form
          className="form"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            begin.mutate();
          }}
        >
          {open.length > 1 && (
            <Radio.Group label="What is paid" value={which} onChange={setWhich}>
              {open.map((p) => (
                <Radio key={p.id} mt={6} value={String(p.id)} label={partWords(p)} />
              ))}
              <Radio mt={6} value="all" label="All that is open" />
            </Radio.Group>
          )}
          {open.length === 1 && open[0] && <p style={{ margin: 0 }}>{money(open[0].open)} is open.</p>}
          <Checkbox
            label="Only hold it on the card now; take it, or less, when the work is done"
            checked={hold}
            onChange={(e) => setHold(e.currentTarget.checked)}
          />
          {possible && (
            <KeepSpoken
              keep={keep}
              onChange={setKeep}
              wrong={(field) => problemOf(begin.error, `keep.${field}`)}
            />
          )}
          {!problemOf(begin.error, 'keep.said') && !problemOf(begin.error, 'keep.most') && (
            <Refusal error={begin.error} />
          )}
          <Button type="submit" loading={begin.isPending} data-autofocus>
            {hold ? 'Hold by card' : 'Take a card'}
          </Button>
        </form>
      )}
    </Dialog>
  );
}
