import { useEffect, useState } from 'react';
import { PlanPicture } from '../reminders/PlanPicture';
import { DocumentWays } from '../ways/DocumentWays';

/**
 * When reminders of a draft would go, and how it could be paid: asked for whenever a change that they depend on is kept.
 * While somebody types they stay as they are.
 *
 * @param fresh changes with what they depend on
 * @param kept whether all that was typed is kept
 */
export function Beside({ id, fresh, kept }: { id: number; fresh: string; kept: boolean }) {
  const [asked, setAsked] = useState(fresh);
  useEffect(() => {
    if (kept) setAsked(fresh);
  }, [kept, fresh]);
  return (
    <>
      <PlanPicture id={id} fresh={asked} />
      <DocumentWays id={id} fresh={asked} />
    </>
  );
}
