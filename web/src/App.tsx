import { type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { type Schemas } from './api/client';
import { Loaded } from './design/States';
import { setToday } from './design/format';
import { Frame } from './Frame';
import { Notices } from './notices/Notices';
import { SettingsSpread } from './settings/SettingsSpread';
import { SignIn } from './people/SignIn';
import { session as sessionQuery } from './api/session';
import { Dialog } from './design/Dialog';

const FirstRun = lazy(() => import('./people/FirstRun').then((m) => ({ default: m.FirstRun })));
const QuotesPage = lazy(() => import('./quotes/QuotesPage').then((m) => ({ default: m.QuotesPage })));
const TodayPage = lazy(() => import('./today/TodayPage').then((m) => ({ default: m.TodayPage })));
const InvoicesPage = lazy(() => import('./invoices/InvoicesPage').then((m) => ({ default: m.InvoicesPage })));
const CreditNotePage = lazy(() =>
  import('./invoices/CreditNotePage').then((m) => ({ default: m.CreditNotePage })),
);
const NoticesPage = lazy(() => import('./settings/NoticesPage').then((m) => ({ default: m.NoticesPage })));
const ProcessorsPage = lazy(() =>
  import('./settings/ProcessorsPage').then((m) => ({ default: m.ProcessorsPage })),
);
const WaysPage = lazy(() => import('./settings/WaysPage').then((m) => ({ default: m.WaysPage })));
const TaxesPage = lazy(() => import('./settings/TaxesPage').then((m) => ({ default: m.TaxesPage })));
const PapersPage = lazy(() => import('./settings/PapersPage').then((m) => ({ default: m.PapersPage })));
const ClientsPage = lazy(() => import('./clients/ClientsPage').then((m) => ({ default: m.ClientsPage })));
const InvoicesListPage = lazy(() =>
  import('./lists/InvoicesListPage').then((m) => ({ default: m.InvoicesListPage })),
);
const MoneyInPage = lazy(() => import('./moneyin/MoneyInPage').then((m) => ({ default: m.MoneyInPage })));
const PayoutsPage = lazy(() => import('./moneyin/PayoutsLeaf').then((m) => ({ default: m.PayoutsPage })));
const LinksPage = lazy(() => import('./moneyin/LinksPage').then((m) => ({ default: m.LinksPage })));
const PaymentsPage = lazy(() => import('./lists/PaymentsPage').then((m) => ({ default: m.PaymentsPage })));
const DonePage = lazy(() => import('./today/DonePage').then((m) => ({ default: m.DonePage })));
const AgingPage = lazy(() => import('./clients/AgingPage').then((m) => ({ default: m.AgingPage })));
const RemindersPage = lazy(() =>
  import('./settings/RemindersPage').then((m) => ({ default: m.RemindersPage })),
);
const LettersPage = lazy(() => import('./letters/LettersPage').then((m) => ({ default: m.LettersPage })));
const AccessPage = lazy(() => import('./settings/AccessPage').then((m) => ({ default: m.AccessPage })));
const CataloguePage = lazy(() =>
  import('./catalogue/CataloguePage').then((m) => ({ default: m.CataloguePage })),
);
const BooksPage = lazy(() => import('./books/BooksPage').then((m) => ({ default: m.BooksPage })));
const SchedulesPage = lazy(() =>
  import('./settings/SchedulesPage').then((m) => ({ default: m.SchedulesPage })),
);
const SettingsPage = lazy(() => import('./settings/SettingsPage').then((m) => ({ default: m.SettingsPage })));

/** Asks again for all that is shown. A first answer that is still under way may be of before the change. */
async function lookAgain(queries: QueryClient) {
  await queries.cancelQueries({
    predicate: (q) => q.state.data === undefined && q.state.fetchStatus === 'fetching',
  });
  await queries.invalidateQueries();
}

/** Open pages hear of changes and ask again; nothing is reckoned here. */
function useLiveUpdates(on: boolean) {
  const queries = useQueryClient();
  useEffect(() => {
    if (!on) return;
    const source = new EventSource('/api/events');
    let timer: number | undefined;
    const refresh = () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(() => void lookAgain(queries), 120);
    };
    source.addEventListener('changed', refresh);
    // After a break in the line anything may have changed.
    source.addEventListener('ready', refresh);
    return () => {
      window.clearTimeout(timer);
      source.close();
    };
  }, [on, queries]);
}

function useSignedOut() {
  const [signedOut, setSignedOut] = useState(false);
  useEffect(() => {
    const listen = () => setSignedOut(true);
    window.addEventListener('signed-out', listen);
    return () => window.removeEventListener('signed-out', listen);
  }, []);
  return [signedOut, setSignedOut] as const;
}

export function App() {
  const session = useQuery(sessionQuery);
  const queries = useQueryClient();
  const [signedOut, setSignedOut] = useSignedOut();
  const signedIn = session.data?.signedIn ?? false;
  useLiveUpdates(signedIn && !signedOut);
  const again = (entered: Schemas['Session']) => {
    // The session is known before the dialog closes, so that the page behind it is never taken away.
    queries.setQueryData(sessionQuery.queryKey, entered);
    setSignedOut(false);
    void queries.invalidateQueries();
  };
  return (
    <Loaded query={session} what="Rustic Quill">
      {(s) => {
        setToday(s.today);
        if (!s.setUp) return <Suspense fallback={null}>{<FirstRun onDone={again} />}</Suspense>;
        if (!s.signedIn && !signedOut) return <SignIn onDone={again} />;
        return (
          <>
            <Notices />
            <Frame session={s}>
              <Suspense fallback={null}>
                <Routes>
                  <Route path="/" element={<TodayPage />} />
                  <Route path="/quotes/:id?" element={<QuotesPage />} />
                  <Route path="/invoices/list" element={<InvoicesListPage />} />
                  <Route path="/money-in/list" element={<PaymentsPage />} />
                  <Route path="/money-in/payouts/:id?" element={<PayoutsPage />} />
                  <Route path="/money-in/links/:id?" element={<LinksPage />} />
                  <Route path="/money-in/:key?" element={<MoneyInPage />} />
                  <Route path="/invoices/:id?" element={<InvoicesPage />} />
                  <Route path="/invoices/:id/credit-notes/:note" element={<CreditNotePage />} />
                  <Route path="/clients/:id?" element={<ClientsPage />} />
                  <Route path="/catalogue/:id?" element={<CataloguePage />} />
                  <Route path="/books" element={<BooksPage />} />
                  <Route path="/done" element={<DonePage />} />
                  <Route path="/aging" element={<AgingPage />} />
                  {(
                    [
                      ['', <SettingsPage />],
                      ['/business', <SettingsPage />],
                      ['/taxes', <TaxesPage />],
                      ['/documents', <PapersPage />],
                      ['/schedules', <SchedulesPage />],
                      ['/ways', <WaysPage />],
                      ['/processors', <ProcessorsPage />],
                      ['/reminders', <RemindersPage />],
                      ['/notices', <NoticesPage />],
                      ['/access', <AccessPage />],
                    ] as const
                  ).map(([part, page]) => (
                    <Route
                      key={part}
                      path={`/settings${part}`}
                      element={<SettingsSpread open={part !== ''}>{page}</SettingsSpread>}
                    />
                  ))}
                  <Route path="/settings/letters/:kind?" element={<LettersPage />} />
                  <Route path="*" element={<Navigate to="/" replace />} />
                </Routes>
              </Suspense>
            </Frame>
            <Dialog
              opened={signedOut}
              onClose={() => undefined}
              withCloseButton={false}
              title="You were signed out. What you typed is still here."
            >
              <SignIn onDone={again} inside />
            </Dialog>
          </>
        );
      }}
    </Loaded>
  );
}
