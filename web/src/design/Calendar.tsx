import '@mantine/dates/styles.css';

import { DatePicker } from '@mantine/dates';
import { Dialog } from './Dialog';

/** A month to choose a day from, for whom the calendar is nearer than the keyboard. */
export function Calendar({
  title,
  value,
  onChoose,
  onClose,
}: {
  title: string;
  value: string;
  onChoose: (day: string) => void;
  onClose: () => void;
}) {
  const day = /^\d{4}-\d{2}-\d{2}$/.test(value) ? value : null;
  return (
    <Dialog onClose={onClose} title={title} size="auto">
      <DatePicker
        value={day}
        {...(day ? { defaultDate: day } : {})}
        firstDayOfWeek={1}
        ariaLabels={{
          previousMonth: 'Month before',
          nextMonth: 'Month after',
          monthLevelControl: 'Choose the month',
          yearLevelControl: 'Choose the year',
          previousYear: 'Year before',
          nextYear: 'Year after',
          previousDecade: 'Years before',
          nextDecade: 'Years after',
        }}
        onChange={(chosen) => chosen && onChoose(chosen)}
      />
    </Dialog>
  );
}
