import { useEffect } from 'react';

/** Names the page in the window's title, so that tabs can be told apart; null leaves that to a part of the page. */
export function useTitle(title: string | null) {
  useEffect(() => {
    if (title !== null) document.title = `${title} · Rustic Quill`;
  }, [title]);
}
