import type { ReactNode } from 'react';
import { NavLink } from 'react-router';

const parts = [
  ['/settings/business', 'The business', 'name, address, account, numbers, logo'],
  ['/settings/taxes', 'Taxes and currencies', 'rates, categories, exchange'],
  ['/settings/documents', 'Documents', 'layout, terms, own fields, cash'],
  ['/settings/schedules', 'Schedules', 'kept under a name'],
  ['/settings/ways', 'Ways to pay', 'card, transfer, cash, cheque; limits and costs'],
  ['/settings/processors', 'Card processors', 'who takes cards and pays out; test, keys'],
  ['/settings/reminders', 'Reminders and late fees', 'the plan, days off, the policy'],
  ['/settings/letters', 'Letters', 'what every message to a client says'],
  ['/settings/notices', 'What you hear of', 'money that came, declined cards, returned mail'],
  ['/settings/access', 'Sign-ins', 'who came in, and from where'],
] as const;

/** The spread of the settings: what there is to set, and one of it. */
export function SettingsSpread({ children, open }: { children: ReactNode; open: boolean }) {
  return (
    <div className={`spread ${open ? 'has-record' : ''}`}>
      <nav className="index" aria-label="Settings">
        {parts.map(([to, name, under]) => (
          <NavLink key={to} className="row" to={to}>
            <span className="who">{name}</span>
            <span />
            <span className="what">{under}</span>
          </NavLink>
        ))}
      </nav>
      <div className="record">
        <div style={{ overflow: 'auto' }}>
          <div className="page">
            <NavLink className="link back" to="/settings">
              Settings
            </NavLink>
            {children}
          </div>
        </div>
      </div>
    </div>
  );
}
