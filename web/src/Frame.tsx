import { Button, Menu, useMantineColorScheme } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, type ReactNode, Suspense, useEffect, useRef, useState } from 'react';
import { NavLink, useLocation, useNavigate } from 'react-router';
import { business } from './api/business';
import { api, data, type Schemas, typing } from './api/client';
import { DemoClock } from './DemoClock';
import { clockDate } from './design/format';
import { Find, palette } from './Find';
import { useOneLeaf } from './design/useNarrow';
import css from './Frame.module.css';
import { HealthBar } from './HealthBar';
import { forgetAll } from './invoices/remembered';
import { Leaving } from './letters/Leaving';
import { Dialog } from './design/Dialog';

const QuickDialog = lazy(() => import('./invoices/QuickDialog'));
const TakeCardDialog = lazy(() => import('./moneyin/TakeCardDialog'));

const places = [
  ['/', 'Today'],
  ['/quotes', 'Quotes'],
  ['/invoices', 'Invoices'],
  ['/money-in', 'Money in'],
  ['/clients', 'Clients'],
  ['/catalogue', 'Catalogue'],
  ['/books', 'Books'],
  ['/settings', 'Settings'],
] as const;

const shortcuts = [
  ['N', 'something new: an invoice, a quote, a client, an item'],
  ['Q', 'a quick invoice: a client, an amount, a tax'],
  ['Ctrl K, or /', 'find anything'],
  ['F', 'filter the list'],
  ['↑ ↓', 'turn through the list'],
  ['Enter', 'next field, on the sheet; from the price, the next line'],
  ['Tab', 'next cell, on the sheet'],
  ['↑ ↓', 'the line above or below, on the sheet'],
  ['Alt ↑ ↓', 'move the line of the sheet'],
  ['Alt Delete', 'take the line or installment off the sheet'],
  ['Ctrl Z, Ctrl Y', 'a step back on the sheet, and forth again'],
  ['Ctrl Enter', 'issue and send, from the sheet'],
  ['+ −', 'nearer and further, in the Almanac'],
  ['← → ↑ ↓', 'walk the marks of the Almanac'],
  ['W', 'waive the late fee that has the focus'],
  ['?', 'this list'],
] as const;

function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  const writes = target.isContentEditable || /INPUT|TEXTAREA|SELECT/.test(target.tagName);
  return writes || event.ctrlKey || event.metaKey || event.altKey;
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
  const [making, setMaking] = useState(false);
  const [quick, setQuick] = useState(false);
  const [taking, setTaking] = useState(false);
  const latest = useRef({ making, newInvoice });
  useEffect(() => {
    latest.current = { making, newInvoice };
  }, [making, newInvoice]);

  const oneLeaf = useOneLeaf();
  const own = useQuery(business);
  useEffect(() => {
    typing.mark = own.data?.mark ?? '.';
  }, [own.data?.mark]);

  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      const key = event.key.toLowerCase();
      if (key === 'n') {
        event.preventDefault();
        latest.current.making = true;
        setMaking(true);
      } else if (key === 'q') {
        event.preventDefault();
        setQuick(true);
      } else if (key === '?') setHelp(true);
      else if (key === '/') {
        event.preventDefault();
        palette.open();
      } else if (key === 'f') {
        const filter = document.querySelector<HTMLInputElement>('.filter input');
        if (!filter) return;
        event.preventDefault();
        filter.focus();
      }
    };
    // N and Enter in one go are a new invoice, even before the list of what is new has the focus. It is asked first:
    // a list that has no focus yet closes at the next key.
    const hurry = (event: KeyboardEvent) => {
      const onItem = document.activeElement?.closest('[role=menuitem]');
      if (!latest.current.making || event.key !== 'Enter' || onItem || isTyping(event)) return;
      event.preventDefault();
      setMaking(false);
      void navigate(latest.current.newInvoice);
    };
    window.addEventListener('keydown', hurry, true);
    window.addEventListener('keydown', listen);
    return () => {
      window.removeEventListener('keydown', hurry, true);
      window.removeEventListener('keydown', listen);
    };
  }, [navigate]);

  const signOut = async () => {
    await data(api.DELETE('/api/session'));
    queries.clear();
    forgetAll();
    window.location.assign('/');
  };
  const light = colorScheme === 'dark' ? 'Daylight' : 'Candlelight';
  const go = (to: string) => () => void navigate(to);
  // What can be begun: its name, the act, and the words with which somebody may ask for it.
  const fresh = [
    ['New invoice', go(newInvoice), 'write draft bill'],
    ['Quick invoice', () => setQuick(true), 'one line fast bill'],
    [
      'Card without an invoice',
      () => setTaking(true),
      'take collect a card payment by telephone in person hold',
    ],
    ['New payment link', go('/money-in/links/new'), 'pay without invoice qr code button'],
    ['New quote', go(ofClient ? `/quotes/new?client=${ofClient}` : '/quotes/new'), 'offer estimate'],
    ['New client', go('/clients/new'), 'add customer'],
    ['New item', go('/catalogue/new'), 'add product article'],
    ['New bundle', go('/catalogue/bundle'), ''],
  ] as const;

  return (
    <div className="frame">
      <a className="skip" href="#place">
        Skip to the page
      </a>
      <header className={`masthead ${css.masthead}`}>
        <NavLink to="/" className={`word ${css.keep}`}>
          Rustic Quill
        </NavLink>
        <nav aria-label="Places">
          {places.map(([to, name]) => (
            <NavLink key={to} to={to} end={to === '/'}>
              {name}
            </NavLink>
          ))}
        </nav>
        <button type="button" className={css.find} onClick={palette.open}>
          Find <kbd>/</kbd>
        </button>
        {session.demo ? (
          <DemoClock session={session} />
        ) : (
          <span className="day figures">{clockDate(session.today)}</span>
        )}
        <button type="button" className={`link ${css.quiet}`} onClick={toggleColorScheme}>
          {light}
        </button>
        <button type="button" className={`link ${css.quiet}`} onClick={() => void signOut()}>
          Sign out
        </button>
        <Menu
          opened={making}
          onChange={setMaking}
          position="bottom-end"
          withinPortal
          withInitialFocusPlaceholder={false}
        >
          <Menu.Target>
            <Button aria-label="New N">
              New <kbd className={css.key}>N</kbd>
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {fresh.map(([name, act]) => (
              <Menu.Item
                key={name}
                // Whoever opened it by key goes on by key.
                data-autofocus={name === 'New invoice' ? true : undefined}
                onClick={act}
              >
                {name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        <div className={`${css.narrow} ${css.keep}`}>
          <button type="button" className={`link ${css.onlyNarrow}`} onClick={palette.open}>
            Find
          </button>
          <Menu position="bottom-end" withinPortal width={220}>
            <Menu.Target>
              <button type="button" className="link">
                {oneLeaf ? 'Places' : 'You'}
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              {oneLeaf && (
                <>
                  {places.map(([to, name]) => (
                    <Menu.Item key={to} onClick={() => void navigate(to)}>
                      {name}
                    </Menu.Item>
                  ))}
                  <Menu.Divider />
                  {fresh.map(([name, act]) => (
                    <Menu.Item key={name} onClick={act}>
                      {name}
                    </Menu.Item>
                  ))}
                  <Menu.Divider />
                </>
              )}
              <Menu.Item onClick={toggleColorScheme}>{light}</Menu.Item>
              <Menu.Item onClick={() => void signOut()}>Sign out</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </div>
      </header>
      <HealthBar />
      <Leaving />
      <main className="place" id="place" tabIndex={-1}>
        {children}
      </main>
      <Find fresh={fresh} />
      {quick && (
        <Suspense fallback={null}>
          <QuickDialog client={ofClient ? Number(ofClient) : null} onClose={() => setQuick(false)} />
        </Suspense>
      )}
      {taking && (
        <Suspense fallback={null}>
          <TakeCardDialog client={ofClient ? Number(ofClient) : null} onClose={() => setTaking(false)} />
        </Suspense>
      )}
      <Dialog opened={help} onClose={() => setHelp(false)} title="Keys">
        <table className="ledger">
          <tbody>
            {shortcuts.map(([key, what]) => (
              <tr key={what}>
                <td>
                  <b>{key}</b>
                </td>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Dialog>
    </div>
  );
}
