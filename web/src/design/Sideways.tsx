import { type ReactNode, useEffect, useRef, useState } from 'react';
import css from './Sideways.module.css';

/** A table that may be wider than its place: then it scrolls sideways, by keyboard too, and says so. */
export function Sideways({ label, children }: { label: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [over, setOver] = useState(false);
  useEffect(() => {
    const here = box.current;
    if (!here) return;
    const look = () => setOver(here.scrollWidth > here.clientWidth + 1);
    const observer = new ResizeObserver(look);
    observer.observe(here);
    if (here.firstElementChild) observer.observe(here.firstElementChild);
    look();
    return () => observer.disconnect();
  }, []);
  return (
    <>
      {over && <p className={`faded small ${css.sidewaysSays}`}>This table goes on to the right.</p>}
      <div
        ref={box}
        data-sideways
        className={css.sideways}
        {...(over ? { tabIndex: 0, role: 'region', 'aria-label': `${label}, scrolls sideways` } : {})}
      >
        {children}
      </div>
    </>
  );
}
