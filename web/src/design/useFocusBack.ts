import { useEffect } from 'react';

/** Where a dialog opened by itself: once it is gone, the focus is again where somebody was typing. */
export function useFocusBack() {
  useEffect(() => {
    const before = document.activeElement;
    return () => {
      if (before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true });
    };
  }, []);
}
