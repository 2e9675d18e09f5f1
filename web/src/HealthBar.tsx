import { useQuery } from '@tanstack/react-query';

const EVERY = 15_000;

/** What the server says of itself: nothing while all is well. */
async function ask(): Promise<string> {
  const answer = await fetch('/api/health', { headers: { 'Quill-By-Itself': 'yes' } }).catch(() => null);
  if (!answer) return 'The application does not answer. What you typed stays here.';
  if (answer.ok) return '';
  const health = (await answer.json().catch(() => ({}))) as { why?: string };
  return health.why ?? 'The application is not well just now.';
}

/** Says above every place that nothing can be saved, while that is so. */
export function HealthBar() {
  const health = useQuery({ queryKey: ['health'], queryFn: ask, refetchInterval: EVERY, retry: false });
  return health.data ? (
    <p className="alert health" role="alert">
      {health.data}
    </p>
  ) : null;
}
