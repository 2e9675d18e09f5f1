import { useQuery } from '@tanstack/react-query';
import { Navigate, useLocation, useParams } from 'react-router';
import { moneyRecord } from '../api/moneyin';
import { Loaded } from '../design/States';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { MoneyIndex } from './MoneyIndex';
import { MoneyRecordLeaf } from './MoneyRecord';
import { PayoutsLeaf } from './PayoutsLeaf';

function Record({ of }: { of: string }) {
  const record = useQuery(moneyRecord(of));
  const { search } = useLocation();
  return (
    <Loaded query={record} what="the payment">
      {(r) =>
        r.key === of ? (
          <MoneyRecordLeaf key={r.key} record={r} />
        ) : (
          // The order whose record was open has brought its money: what it became is looked at.
          <Navigate to={{ pathname: `/money-in/${r.key}`, search }} replace />
        )
      }
    </Loaded>
  );
}

/** The spread of money that comes in. */
export function MoneyInPage() {
  const { key } = useParams();
  useTitle(key ? null : 'Money in');
  const narrow = useOneLeaf();
  const known = key && /^(payment|order|planned)-\d+$/.test(key) ? key : null;
  return (
    <div className={`spread ${known ? 'has-record' : ''}`}>
      <MoneyIndex current={known} />
      {known ? <Record of={known} /> : <div className="record">{!narrow && <PayoutsLeaf />}</div>}
    </div>
  );
}
