import { Button, Radio } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { savedOf } from '../api/clients';
import { useReceipts } from '../api/business';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { isZero, money } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { partWords } from './partWords';

/** Takes what is open from a card or mandate that is kept, within what its holder agreed to. */
export function FromSavedDialog({
  id,
  clientId,
  number,
  parts,
  open: all,
  onClose,
}: {
  id: number;
  clientId: number;
  number: string;
  parts: Schemas['Part'][];
  /** All that is open. */
  open: Schemas['Amount'];
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const saved = useQuery(savedOf(clientId));
  const open = parts.filter((p) => !isZero(p.open));
  const [which, setWhich] = useState(open.length === 1 ? 'all' : String(open[0]?.id ?? 'all'));
  const [method, setMethod] = useState<string | null>(null);
  const receipts = useReceipts();
  const usable = saved.data?.methods.filter((m) => m.collects && !m.expired) ?? [];
  const from = method ?? String(usable[0]?.id ?? '');
  const part = open.find((p) => String(p.id) === which);
  const sum = part ? part.open : all;
  const take = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/documents/{id}/saved-collections', {
          params: { path: { id } },
          body: { method: Number(from), installments: part ? [part.id] : [], amount: sum.amount },
        }),
      ),
    onSuccess: (answer) => {
      tell(
        answer.came === 'PAID'
          ? `${money(sum)} is taken${receipts ? ', and the receipt goes by itself' : ''}.`
          : `${money(sum)} is on its way; it is certain after three working days.`,
      );
      onClose();
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const wrong = problemOf(take.error, 'method');
  return (
    <Dialog onClose={onClose} title={`Take of ${number} from what is kept`}>
      <Loaded query={saved} what="what is kept">
        {(s) =>
          usable.length === 0 ? (
            <p>
              {s.methods.length === 0
                ? 'No card or mandate of theirs is kept. '
                : 'What is kept of theirs is for their own payments alone. '}
              <Link to={`/clients/${clientId}`}>Ask for one on their account</Link>
            </p>
          ) : (
            <form
              className="form"
              noValidate
              onSubmit={(e) => {
                e.preventDefault();
                take.mutate();
              }}
            >
              {open.length > 1 && (
                <Radio.Group label="What is taken" value={which} onChange={setWhich}>
                  {open.map((p) => (
                    <Radio key={p.id} mt={6} value={String(p.id)} label={partWords(p)} />
                  ))}
                  <Radio mt={6} value="all" label={`All that is open: ${money(all)}`} />
                </Radio.Group>
              )}
              <Radio.Group label="From what" value={from} onChange={setMethod} error={wrong}>
                {usable.map((m) => (
                  <Radio
                    key={m.id}
                    mt={6}
                    value={String(m.id)}
                    label={m.words}
                    description={`“${m.agreed}”`}
                  />
                ))}
              </Radio.Group>
              {!wrong && <Refusal error={take.error} />}
              <Button type="submit" loading={take.isPending} data-autofocus>
                Take {money(sum)}
              </Button>
            </form>
          )
        }
      </Loaded>
    </Dialog>
  );
}
