import { useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';

/** Said along with the way to a sheet: its letter is wanted at once. */
export const SENDING = { sending: true };

/** Does that once where it was said; a page that is loaded again does not. */
export function useSending(act: () => void) {
  const { pathname, state } = useLocation() as { pathname: string; state: Partial<typeof SENDING> | null };
  const navigate = useNavigate();
  const done = useRef(false);
  useEffect(() => {
    if (!state?.sending || done.current) return;
    done.current = true;
    void navigate(pathname, { replace: true, state: null });
    act();
  }, [state, pathname, navigate, act]);
}
