import { Button, Modal, useMantineColorScheme } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';
import { NavLink, useLocation, useNavigate } from 'react-router';
import { api, data, type Schemas, typing } from './api/client';
import { DemoClock } from './DemoClock';
import { HealthBar } from './HealthBar';
import { clockDate } from './design/format';
import { Leaving } from './letters/Leaving';

const places = [
  ['/', 'Today'],
  ['/invoices', 'Invoices'],
  ['/clients', 'Clients'],
  ['/books', 'Books'],
  ['/settings', 'Settings'],
] as const;

const shortcuts = [
  ['N', 'a new invoice'],
  ['/', 'filter the list'],
  ['↑ ↓', 'turn through the list'],
  ['Enter', 'next line, on the sheet'],
  ['Alt ↑ ↓', 'move the line of the sheet'],
  ['Alt Delete', 'take the line or installment off the sheet'],
  ['Ctrl Z', 'bring it back'],
  ['Ctrl Enter', 'issue and send, from the sheet'],
  ['+ −', 'nearer and further, in the Almanac'],
  ['← → ↑ ↓', 'walk the marks of the Almanac'],
  ['W', 'waive the late fee that has the focus'],
  ['?', 'this list'],
] as const;

function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  return /INPUT|TEXTAREA|SELECT/.test(target.tagName) || event.ctrlKey || event.metaKey || event.altKey;
}

/** The masthead with the places, and what is open under it. */
export function Frame({ session, children }: { session: Schemas['Session']; children: ReactNode }) {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  // Where a client is open, a new invoice is for it.
  const ofClient = /^\/clients\/(\d+)/.exec(pathname)?.[1];
  const newInvoice = ofClient ? `/invoices/new?client=${ofClient}` : '/invoices/new';
  const queries = useQueryClient();
  const { colorScheme, toggleColorScheme } = useMantineColorScheme();
  const [help, setHelp] = useState(false);

  const business = useQuery({ queryKey: ['business'], queryFn: () => data(api.GET('/api/business')) });
  useEffect(() => {
    typing.mark = business.data?.mark ?? '.';
  }, [business.data?.mark]);

  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      if (event.key === 'n' || event.key === 'N') {
        event.preventDefault();
        void navigate(newInvoice);
      } else if (event.key === '?') setHelp(true);
      else if (event.key === '/') {
        const filter = document.querySelector<HTMLInputElement>('.filter input');
        if (filter) {
          event.preventDefault();
          filter.focus();
        }
      }
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [navigate, newInvoice]);

  const signOut = async () => {
    await data(api.DELETE('/api/session'));
    queries.clear();
    window.location.assign('/');
  };

  return (
    <div className="frame">
      <a className="skip" href="#place">
        Skip to the page
      </a>
      <header className="masthead">
        <NavLink to="/" className="word">
          Rustic Quill
        </NavLink>
        <nav aria-label="Places">
          {places.map(([to, name]) => (
            <NavLink key={to} to={to} end={to === '/'}>
              {name}
            </NavLink>
          ))}
        </nav>
        {session.demo ? (
          <DemoClock session={session} />
        ) : (
          <span className="day figures">{clockDate(session.today)}</span>
        )}
        <button type="button" className="link" onClick={toggleColorScheme}>
          {colorScheme === 'dark' ? 'Daylight' : 'Candlelight'}
        </button>
        <button type="button" className="link" onClick={() => void signOut()}>
          Sign out
        </button>
        <Button onClick={() => void navigate(newInvoice)}>New invoice</Button>
      </header>
      <HealthBar />
      <Leaving />
      <main className="place" id="place" tabIndex={-1}>
        {children}
      </main>
      <Modal
        opened={help}
        onClose={() => setHelp(false)}
        title="Keys"
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        <table className="ledger">
          <tbody>
            {shortcuts.map(([key, what]) => (
              <tr key={key}>
                <td>
                  <b>{key}</b>
                </td>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Modal>
    </div>
  );
}
