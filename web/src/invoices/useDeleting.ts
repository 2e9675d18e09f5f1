import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { createElement, type RefObject, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data } from '../api/client';
import { tell } from '../design/tell';
import { forget } from './remembered';
import type { Typed } from './useDraft';

const LONG_ENOUGH = 20_000;

/** Deletes a draft, and brings it back where that was a slip; files are asked about first, as they cannot come back. */
export function useDeleting(
  typed: Typed,
  id: RefObject<number | null>,
  version: RefObject<number>,
  keep: () => Promise<boolean>,
) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const restore = async (key: string) => {
    notifications.hide(key);
    const kept = await data(api.POST('/api/invoices', { body: typed }));
    await queries.invalidateQueries();
    void navigate(`/invoices/${kept.id}`);
  };
  const remove = useMutation({
    mutationFn: async () => {
      await keep();
      if (id.current !== null)
        await data(
          api.DELETE('/api/invoices/{id}', {
            params: { path: { id: id.current }, query: { version: version.current } },
          }),
        );
    },
    onSuccess: async () => {
      forget(id.current);
      forget(null);
      const key = `deleted-${id.current}`;
      if (id.current !== null)
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
      await queries.invalidateQueries();
      void navigate('/invoices');
    },
  });
  const begin = async () => {
    if (id.current !== null) {
      const files = await data(
        api.GET('/api/invoices/{id}/attachments', { params: { path: { id: id.current } } }),
      );
      if (files.length > 0) return setAsking(true);
    }
    remove.mutate();
  };
  return {
    begin: () => void begin(),
    asking,
    cancel: () => setAsking(false),
    confirm: () => {
      setAsking(false);
      remove.mutate();
    },
    error: remove.error,
  };
}
