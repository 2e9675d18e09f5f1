import { useQuery } from '@tanstack/react-query';
import { NavLink, useParams } from 'react-router';
import { letters, type LetterKind } from '../api/letters';
import { shortDate } from '../design/format';
import { Loaded } from '../design/States';
import { useTitle } from '../design/useTitle';
import { LetterDesk } from './LetterDesk';
import css from './LettersPage.module.css';

/** The letters that go to clients: which there are, and one of them to be worded. */
export function LettersPage() {
  const { kind } = useParams();
  const all = useQuery(letters);
  useTitle('Letters');
  return (
    <div className={`spread ${kind ? 'has-record' : ''}`}>
      <nav className="index" aria-label="Letters">
        <NavLink className={`link ${css.up}`} to="/settings">
          Settings
        </NavLink>
        <Loaded query={all} what="the letters">
          {(list) => {
            const groups = [...new Set(list.map((l) => l.group))];
            return groups.map((group) => (
              <section key={group}>
                <h2 className={css.group}>{group}</h2>
                {list
                  .filter((l) => l.group === group)
                  .map((l) => (
                    <NavLink key={l.kind} className="row" to={`/settings/letters/${l.kind.toLowerCase()}`}>
                      <span className="who">{l.title}</span>
                      <span />
                      <span className="what">
                        {l.own ? `yours, of ${shortDate(l.own)}` : 'ours'}
                        {l.forPayers && `; to who pays, of ${shortDate(l.forPayers)}`}
                      </span>
                    </NavLink>
                  ))}
              </section>
            ));
          }}
        </Loaded>
      </nav>
      <div className="record">
        {kind && all.data?.some((l) => l.kind === kind.toUpperCase()) ? (
          <LetterDesk key={kind} kind={kind.toUpperCase() as LetterKind} />
        ) : (
          <div className="page">
            <h1>Letters</h1>
            <p className="faded" style={{ maxWidth: 560 }}>
              Every message that goes to a client is one of these. Each goes as we worded it until you word it
              yourself. Choose one.
            </p>
          </div>
        )}
      </div>
    </div>
  );
}
