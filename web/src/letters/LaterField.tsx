import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { DayField } from '../design/DayField';
import { isDay } from '../design/format';
import css from './Letters.module.css';

/** When it leaves: at once, or on a day at an hour by the business's clock. */
export function LaterField({
  problem,
  onChange,
}: {
  problem?: string;
  onChange: (at: string | null) => void;
}) {
  const [open, setOpen] = useState(false);
  const [day, setDay] = useState('');
  const [hour, setHour] = useState('08:00');
  const put = (d: string, h: string) => {
    setDay(d);
    setHour(h);
    // What is no day yet goes on as it is, so that the answer can say what is wrong with it.
    onChange(d === '' ? null : isDay(d) ? `${d}T${h}` : d);
  };
  if (!open)
    return (
      <button type="button" className={`link ${css.more}`} onClick={() => setOpen(true)}>
        + Send it later
      </button>
    );
  return (
    <div className={css.later}>
      <DayField
        label="It leaves on"
        hint="tomorrow, Monday, 15 March"
        lean="coming"
        value={day}
        problem={problem}
        onChange={(d) => put(d, hour)}
      />
      <TextInput label="at" type="time" value={hour} onChange={(e) => put(day, e.currentTarget.value)} />
      <button
        type="button"
        className="link"
        onClick={() => {
          put('', hour);
          setOpen(false);
        }}
      >
        Send it at once
      </button>
    </div>
  );
}
