import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { createElement, type RefObject, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, messageOf } from '../api/client';
import { tell } from '../design/tell';
import type { Desk } from './desk';
import { forget } from './remembered';
import type { Typed } from './useDraft';

const LONG_ENOUGH = 20_000;

/** Deletes a draft, and brings it back where that was a slip; files are asked about first, as they cannot come back. */
export function useDeleting(
  typed: Typed,
  id: RefObject<number | null>,
  version: RefObject<number>,
  keep: () => Promise<boolean>,
  desk: Desk,
) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  // That it is deleted is said once the sheet is gone: else it is brought back while the old sheet still stands there,
  // and what is typed into that one goes with it.
  const open = useRef(true);
  const onceGone = useRef<() => void>(undefined);
  useEffect(() => {
    open.current = true;
    return () => {
      open.current = false;
      onceGone.current?.();
    };
  }, []);
  const restore = async (key: string) => {
    try {
      const kept = await desk.begin(typed, false);
      notifications.hide(key);
      void navigate(`${desk.place}/${kept.id}`);
      await queries.invalidateQueries();
    } catch (error) {
      tell(`Not yet. ${messageOf(error)}`);
    }
  };
  const sayGone = () => {
    const key = `deleted-${id.current}`;
    tell(
      createElement(
        'span',
        null,
        'The draft is deleted. ',
        createElement(
          'button',
          { type: 'button', className: 'link', onClick: () => void restore(key) },
          'Bring it back',
        ),
      ),
      { id: key, autoClose: LONG_ENOUGH },
    );
  };
  const remove = useMutation({
    mutationFn: async () => {
      await keep();
      if (id.current !== null) await desk.discard(id.current, version.current);
    },
    onSuccess: async () => {
      forget(`new-${desk.kind}`);
      if (id.current !== null) {
        forget(id.current);
        onceGone.current = sayGone;
      }
      // The sheet goes before anything is asked anew: its own draft is none any more. Whoever has left meanwhile is
      // elsewhere, and told there.
      if (open.current) void navigate(desk.place);
      else onceGone.current?.();
      await queries.invalidateQueries();
    },
  });
  const begin = useMutation({
    mutationFn: async () =>
      id.current === null
        ? []
        : data(api.GET('/api/invoices/{id}/attachments', { params: { path: { id: id.current } } })),
    onSuccess: (files) => (files.length > 0 ? setAsking(true) : remove.mutate()),
  });
  return {
    begin: () => begin.mutate(),
    asking,
    cancel: () => setAsking(false),
    confirm: () => {
      setAsking(false);
      remove.mutate();
    },
    error: begin.error ?? remove.error,
  };
}
