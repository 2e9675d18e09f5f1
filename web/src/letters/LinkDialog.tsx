import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf } from '../api/client';
import { copyLink } from '../design/copyLink';
import { DayField } from '../design/DayField';
import { longDate } from '../design/format';
import { Loaded, Refusal } from '../design/States';
import { Dialog } from '../design/Dialog';

/** The link to a document's page: copied, withdrawn, made anew, or given an end. */
export function LinkDialog({ id, number, onClose }: { id: number; number: string; onClose: () => void }) {
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const key = ['link', id];
  const link = useQuery({ queryKey: key, queryFn: () => data(api.GET('/api/documents/{id}/link', path)) });
  const [ends, setEnds] = useState<string | null>(null);
  const act = useMutation({
    mutationFn: (what: 'withdraw' | 'renew' | 'end') =>
      data(
        what === 'withdraw'
          ? api.POST('/api/documents/{id}/link/withdrawal', path)
          : what === 'renew'
            ? api.POST('/api/documents/{id}/link/renewal', path)
            : api.PUT('/api/documents/{id}/link/end', { ...path, body: { endsOn: ends ?? '' } }),
      ),
    onSuccess: (now) => {
      queries.setQueryData(key, now);
      setEnds(null);
      void queries.invalidateQueries();
    },
  });
  const wrong = problemOf(act.error, 'endsOn');
  return (
    <Dialog onClose={onClose} title={`The link to the page of ${number}`}>
      <Loaded query={link} what="the link">
        {(l) => (
          <form
            className="form"
            noValidate
            onSubmit={(e) => {
              e.preventDefault();
              act.mutate('end');
            }}
          >
            {l.link ? (
              <>
                <p style={{ margin: 0, overflowWrap: 'anywhere' }}>{l.link}</p>
                <p className="faded small" style={{ margin: 0 }}>
                  {l.endsOn ? `It leads there until ${longDate(l.endsOn)}.` : 'It has no end.'} An old link
                  says kindly that it has ended, and nothing else.
                </p>
                <DayField
                  label="Its last day; empty for no end"
                  lean="coming"
                  value={ends ?? l.endsOn ?? ''}
                  onChange={setEnds}
                  {...(wrong ? { problem: wrong } : {})}
                />
              </>
            ) : (
              <p style={{ margin: 0 }}>
                No link leads to its page any more. The next letter about it brings a new one.
              </p>
            )}
            <Refusal error={wrong ? null : act.error} />
            <div className="row-of-links">
              {l.link && (
                <Button type="submit" loading={act.isPending} disabled={ends === null}>
                  Set its end
                </Button>
              )}
              {l.link && (
                <button type="button" className="link" onClick={() => void copyLink(l.link)}>
                  Copy it
                </button>
              )}
              <button type="button" className="link" onClick={() => act.mutate('renew')}>
                Make a new one
              </button>
              {l.link && (
                <button type="button" className="link late" onClick={() => act.mutate('withdraw')}>
                  Withdraw it
                </button>
              )}
            </div>
          </form>
        )}
      </Loaded>
    </Dialog>
  );
}
