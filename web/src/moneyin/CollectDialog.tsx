import { Button, Checkbox, Radio } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { isZero, money } from '../design/format';
import { standingOf } from '../design/Measure';
import { Refusal } from '../design/States';

/** The card company's page, to be opened here or by a telephone. */
export function CardPage({ page, hold }: { page: Schemas['PayPage']; hold: boolean }) {
  return (
    <div className="form">
      <p style={{ margin: 0 }}>The card company’s page is ready. The number is typed there, never here.</p>
      <Button component="a" href={page.address} target="_blank" rel="noreferrer" data-autofocus>
        Open its page here
      </Button>
      <p style={{ margin: 0 }}>Or let the client point a telephone at this:</p>
      <img src={page.code} alt="Square code that leads to the card company’s page" width={180} height={180} />
      <p className="faded small" style={{ margin: 0 }}>
        {hold
          ? 'Once it is held it stands under Money in: take it, or less of it, within seven days.'
          : 'Once it is paid it stands under Money in, and the receipt goes by itself.'}
      </p>
    </div>
  );
}

/** A card that is at hand: the card company's page is opened here, or shown as a code for the client's own telephone. */
export function CollectDialog({
  id,
  number,
  parts,
  onClose,
}: {
  id: number;
  number: string;
  /** What is open of an invoice; none for a quote, of which what is asked for is taken. */
  parts: Schemas['Part'][];
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const open = parts.filter((p) => !isZero(p.open));
  const [which, setWhich] = useState(String(open[0]?.id ?? ''));
  const [hold, setHold] = useState(false);
  const begin = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/documents/{id}/collections', {
          params: { path: { id } },
          body: { installments: which === 'all' || which === '' ? [] : [Number(which)], hold },
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
                <Radio
                  key={p.id}
                  mt={6}
                  value={String(p.id)}
                  label={`${
                    p.kind === 'LATE_FEE'
                      ? 'Late fee'
                      : p.kind === 'DEPOSIT'
                        ? 'Deposit'
                        : `Installment ${p.position}`
                  }, ${standingOf(p)}: ${money(p.open)}`}
                />
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
          <Refusal error={begin.error} />
          <Button type="submit" loading={begin.isPending} data-autofocus>
            {hold ? 'Hold by card' : 'Take a card'}
          </Button>
        </form>
      )}
    </Dialog>
  );
}
