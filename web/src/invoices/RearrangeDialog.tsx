import { Button, Modal, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, inMark, problemOf, type Schemas } from '../api/client';
import { isZero, money, newKey } from '../design/format';
import { MeasureFigure } from '../design/Measure';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { SendDialog } from '../letters/SendDialog';
import { plainSlip } from '../letters/slip';
import { ScheduleEditor } from './ScheduleEditor';
import { editedSum } from './scheduleEdits';
import type { Term } from './useDraft';

/** What of an installment is open, as it is agreed now. */
const asAgreed = (p: Schemas['Part']): Term => ({
  deposit: false,
  share: inMark(p.open.amount),
  // A day that has passed is to be agreed anew.
  days: p.standing === 'LATE' ? '' : (p.dueOn ?? 'no date yet'),
});

/** How what is still open shall be paid from now on: both are seen, then the letter, before it is agreed. */
export function RearrangeDialog({
  id,
  number,
  measure,
  reachable,
  onClose,
}: {
  id: number;
  number: string;
  measure: Schemas['Part'][];
  /** Whether the client has an address to write to. */
  reachable: boolean;
  onClose: () => void;
}) {
  const open = measure.filter((p) => p.kind === 'INSTALLMENT' && !isZero(p.open));
  const [schedule, setSchedule] = useState<Term[]>(() => open.map(asAgreed));
  const [why, setWhy] = useState('');
  const [opened] = useState(newKey);
  const [sending, setSending] = useState(false);
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const [shown] = useDebouncedValue(schedule, 200);
  const sum = useQuery({
    queryKey: ['rearrange', opened],
    queryFn: () =>
      data(
        api.POST('/api/invoices/{id}/rearrangement/look', {
          ...path,
          body: { schedule: [{ deposit: false, share: 'rest', days: '0' }], why: '', open: null },
        }),
      ),
    gcTime: 0,
  });
  const wanted = { schedule, why, open: sum.data?.open.amount ?? null };
  const then = useQuery({
    queryKey: ['rearrange', opened, shown],
    queryFn: () =>
      data(
        api.POST('/api/invoices/{id}/rearrangement/look', { ...path, body: { ...wanted, schedule: shown } }),
      ),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  const agree = async (slip: Schemas['Slip']) => {
    const done = await data(
      api.POST('/api/invoices/{id}/rearrangement', { ...path, body: { wanted, slip } }),
    );
    tell(done.told ? 'Agreed; the client is told.' : 'Agreed. Nobody was told: there is no address.');
  };
  const quietly = useMutation({
    mutationFn: () => agree(plainSlip),
    onSuccess: () => {
      void queries.invalidateQueries();
      onClose();
    },
  });
  if (sending)
    return (
      <SendDialog
        title={`What changes for ${number}`}
        action="Agree and send"
        look={(slip) =>
          data(api.POST('/api/invoices/{id}/rearrangement/letter', { ...path, body: { wanted, slip } }))
        }
        mailOnly
        send={agree}
        onClose={onClose}
      />
    );
  return (
    <Modal
      opened
      onClose={onClose}
      title={`Rearrange what is open of ${number}`}
      size="lg"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <Loaded query={sum} what="what is open">
        {(s) => (
          <form
            className="form"
            noValidate
            onSubmit={(e) => {
              e.preventDefault();
              if (reachable) setSending(true);
              else quietly.mutate();
            }}
          >
            <div>
              <h2>As it is agreed now</h2>
              <MeasureFigure parts={open} />
            </div>
            <div>
              <h2>{money(s.open)} from now on</h2>
              <ScheduleEditor
                schedule={schedule}
                onChange={(edit) => setSchedule(edit)}
                installments={then.data?.installments ?? []}
                edited={editedSum(s.open, schedule)}
                of={(field) => problemOf(then.error, field)}
                onRemoved={() => undefined}
                deposits={false}
              />
            </div>
            <TextInput
              label="Why"
              description="For your own record; it is not in the letter."
              value={why}
              error={problemOf(quietly.error, 'why')}
              onChange={(e) => setWhy(e.currentTarget.value)}
            />
            <p className="small faded" style={{ margin: 0 }}>
              What was paid stays where it is. Reminders and late fees count from the new days.
            </p>
            <Refusal error={quietly.error} />
            <Button type="submit" loading={quietly.isPending} disabled={Boolean(then.error)}>
              {reachable ? 'See the letter…' : 'Agree without a letter'}
            </Button>
          </form>
        )}
      </Loaded>
    </Modal>
  );
}
