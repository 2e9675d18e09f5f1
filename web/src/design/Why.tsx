import { Popover } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useId, useState } from 'react';
import { messageOf, type Why } from '../api/client';
import css from './Why.module.css';

/** The rule, and the numbers that a figure came from. */
function Reasons({ title, why }: { title: ReactNode; why: Why }) {
  return (
    <>
      <h3>Why {title}?</h3>
      <p>{why.rule}</p>
      {why.steps.map((step, i) => (
        <p key={`${i}-${step}`}>{step}</p>
      ))}
    </>
  );
}

/** A figure that says why when it is pressed, right where it stands. */
export function WhyFigure({
  text,
  why,
}: {
  text: string;
  /** The reason, or how to ask for it. */
  why: Why | (() => Promise<Why>);
}) {
  const [opened, setOpened] = useState(false);
  const asks = typeof why === 'function';
  const asked = useQuery({
    queryKey: ['why', useId()],
    queryFn: () => (asks ? why() : why),
    enabled: opened && asks,
    gcTime: 0,
    retry: false,
  });
  const reasons = asks ? asked.data : why;
  return (
    <Popover
      opened={opened}
      onChange={setOpened}
      width={290}
      shadow="md"
      withinPortal
      withRoles={false}
      transitionProps={{ duration: 0 }}
    >
      <Popover.Target>
        <button
          type="button"
          className={`figure-why ${css.figureWhy} money`}
          aria-expanded={opened}
          title="Why?"
          onClick={() => setOpened((o) => !o)}
          onKeyDown={(e) => {
            if (e.key !== 'Escape' || !opened) return;
            e.stopPropagation();
            setOpened(false);
          }}
        >
          {text}
        </button>
      </Popover.Target>
      <Popover.Dropdown className={`why ${css.why}`} role="note" aria-live="polite">
        {reasons ? (
          <Reasons title={text} why={reasons} />
        ) : (
          <p>{asked.error ? messageOf(asked.error) : 'One moment…'}</p>
        )}
      </Popover.Dropdown>
    </Popover>
  );
}
