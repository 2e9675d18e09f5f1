import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { business } from '../api/business';
import { clientsOf } from '../api/clients';

/** What is still missing before the first invoice can be sent, each with where it is written. */
export function Beginning() {
  const own = useQuery(business).data;
  const clients = useInfiniteQuery(clientsOf({ filter: '', sort: 'name', archived: false }));
  if (!own || !clients.data) return null;
  const b = own.business;
  const steps = [
    {
      done: b.address !== '',
      words: 'your address',
      to: '/settings/business',
      why: 'it is printed on every invoice',
    },
    {
      done: b.account.iban !== '',
      words: 'an account for transfers',
      to: '/settings/business',
      why: 'so that clients can pay into it',
    },
    ...(b.registered
      ? [
          {
            done: own.taxes.some((t) => !t.retired),
            words: 'a tax',
            to: '/settings/taxes',
            why: 'each line bears one',
          },
        ]
      : []),
    {
      done: (clients.data.pages[0]?.count ?? 0) > 0,
      words: 'a client',
      to: '/clients/new',
      why: 'with an e-mail address',
    },
  ];
  const open = steps.filter((s) => !s.done);
  return (
    <div className="empty">
      <p>Here each client gets a lane: what fell due and was paid, what is late, what comes.</p>
      {open.length > 0 && (
        <>
          <p>Before the first invoice can be sent there is missing:</p>
          <ul>
            {open.map((s) => (
              <li key={s.words}>
                <Link to={s.to}>{s.words}</Link>, {s.why}
              </li>
            ))}
          </ul>
        </>
      )}
      <p>
        <Link to="/invoices/new">Write the first invoice.</Link>
      </p>
    </div>
  );
}
