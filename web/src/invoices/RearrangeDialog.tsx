import { Button, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { isZero, money, newKey } from '../design/format';
import { MeasureFigure } from '../design/Measure';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useLookFirst } from '../letters/useLookFirst';
import { SendDialog } from '../letters/SendDialog';
import { plainSlip } from '../letters/slip';
import { ScheduleEditor } from './ScheduleEditor';
import { editedSum } from './scheduleEdits';
import type { Term } from './useDraft';
import { Dialog } from '../design/Dialog';

/** How what is still open shall be paid from now on: both are seen, then the letter, before it is agreed. */
function Rearranging({
  now,
  id,
  number,
  measure,
  reachable,
  onClose,
}: {
  now: Schemas['ToRearrange'];
  id: number;
  number: string;
  measure: Schemas['Part'][];
  /** Whether the client has an address to write to. */
  reachable: boolean;
  onClose: () => void;
}) {
  const open = measure.filter((p) => p.kind === 'INSTALLMENT' && !isZero(p.open));
  const [schedule, setSchedule] = useState<Term[]>(now.schedule);
  const [why, setWhy] = useState('');
  const [opened] = useState(newKey);
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const [shown] = useDebouncedValue(schedule, 200);
  const wanted = { schedule, why, open: now.open.amount };
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
  const letter = useLookFirst((slip) =>
    data(api.POST('/api/invoices/{id}/rearrangement/letter', { ...path, body: { wanted, slip } })),
  );
  const refusal = letter.error ?? quietly.error;
  if (letter.ready)
    return (
      <SendDialog
        title={`What changes for ${number}`}
        action="Agree and send"
        look={letter.look}
        mailOnly
        send={agree}
        onBack={letter.back}
        onClose={onClose}
      />
    );
  return (
    <Dialog onClose={onClose} title={`Rearrange what is open of ${number}`} size="lg">
      <form
        className="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (reachable) letter.begin();
          else quietly.mutate();
        }}
      >
        <div>
          <h2>As it is agreed now</h2>
          <MeasureFigure parts={open} />
        </div>
        <div>
          <h2>{money(now.open)} from now on</h2>
          <ScheduleEditor
            schedule={schedule}
            onChange={(edit) => setSchedule(edit)}
            installments={then.data?.installments ?? []}
            edited={editedSum(now.open, schedule)}
            of={(field) => problemOf(then.error, field)}
            onRemoved={() => undefined}
            deposits={false}
          />
        </div>
        <TextInput
          label="Why"
          description="For your own record; it is not in the letter."
          value={why}
          error={problemOf(refusal, 'why')}
          onChange={(e) => setWhy(e.currentTarget.value)}
        />
        <p className="small faded" style={{ margin: 0 }}>
          What was paid stays where it is. Reminders and late fees count from the new days.
        </p>
        {!problemOf(refusal, 'why') && <Refusal error={refusal} />}
        <Button type="submit" loading={quietly.isPending || letter.isPending} disabled={Boolean(then.error)}>
          {reachable ? 'See the letter…' : 'Agree without a letter'}
        </Button>
      </form>
    </Dialog>
  );
}

/** The dialog, once it is known how what is open is agreed now. */
export function RearrangeDialog(props: Omit<Parameters<typeof Rearranging>[0], 'now'>) {
  const { id, number, onClose } = props;
  const now = useQuery({
    queryKey: ['rearrangement', id],
    queryFn: () => data(api.GET('/api/invoices/{id}/rearrangement', { params: { path: { id } } })),
    gcTime: 0,
    // What was typed is not taken away by an answer that comes later.
    staleTime: Infinity,
    retry: false,
  });
  if (now.data) return <Rearranging {...props} now={now.data} />;
  return (
    <Dialog onClose={onClose} title={`Rearrange what is open of ${number}`}>
      <Loaded query={now} what="what is open">
        {() => null}
      </Loaded>
    </Dialog>
  );
}
