import { Menu } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, messageOf, type Schemas } from './api/client';
import { clockDate } from './design/format';
import { tell } from './design/tell';

const steps = [
  ['next', 'To the next thing that happens'],
  ['day', 'A day forward'],
  ['week', 'A week forward'],
  ['month', 'A month forward'],
] as const;

function told(m: Schemas['Moved']): string {
  const count = (n: number, one: string, many: string) => (n === 1 ? `one ${one}` : `${n} ${many}`);
  const done = [
    m.reminders ? count(m.reminders, 'reminder', 'reminders') : '',
    m.fees ? count(m.fees, 'late fee', 'late fees') : '',
  ].filter(Boolean);
  return done.length ? `Meanwhile: ${done.join(' and ')}.` : 'Nothing happened by itself meanwhile.';
}

/** The demo's date and time; it moves forward, and each day's run is done on the way. */
export function DemoClock({ session }: { session: Schemas['Session'] }) {
  const queries = useQueryClient();
  const move = useMutation({
    mutationFn: (by: string) => data(api.POST('/api/demo/clock', { body: { by } })),
    onSuccess: (moved) => {
      void queries.invalidateQueries();
      tell(told(moved), { title: `It is ${clockDate(moved.today)}, ${moved.time}` });
    },
    onError: (error) => tell(messageOf(error)),
  });
  return (
    <Menu position="bottom-end" withinPortal={false}>
      <Menu.Target>
        <button type="button" className="link day figures" disabled={move.isPending} title="The demo's clock">
          {move.isPending ? 'The days go by…' : `${clockDate(session.today)}, ${session.time}`}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {steps.map(([by, words]) => (
          <Menu.Item key={by} onClick={() => move.mutate(by)}>
            {words}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
