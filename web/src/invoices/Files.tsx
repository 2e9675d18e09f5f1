import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { api, data, messageOf, problemOf } from '../api/client';
import { upload } from '../api/upload';
import { FieldProblem } from './fields';
import { filesOf, invoiceKey } from '../api/invoices';

function size(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.ceil(bytes / 1024)} KB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

/** Files kept with a draft: added, sent along or not, taken off. */
export function Files({ ensure, id }: { ensure: () => Promise<number | null>; id: number | null }) {
  const queries = useQueryClient();
  const picker = useRef<HTMLInputElement>(null);
  const files = useQuery(filesOf(id));
  // A first answer that is still on its way was asked for before the change, and would not be asked for again.
  const again = async () => {
    await queries.cancelQueries({ queryKey: invoiceKey });
    await queries.invalidateQueries({ queryKey: invoiceKey });
  };
  const add = useMutation({
    mutationFn: async (file: File) => {
      const draft = await ensure();
      if (draft === null) throw new Error('Write something on the sheet first, so that it can be kept.');
      await upload(`/api/invoices/${draft}/attachments`, file);
    },
    onSettled: again,
  });
  const send = useMutation({
    mutationFn: ({ file, sent }: { file: number; sent: boolean }) =>
      data(
        api.PUT('/api/invoices/{id}/attachments/{file}', {
          params: { path: { id: id ?? 0, file } },
          body: { sent },
        }),
      ),
    onSettled: again,
  });
  const remove = useMutation({
    mutationFn: (file: number) =>
      data(api.DELETE('/api/invoices/{id}/attachments/{file}', { params: { path: { id: id ?? 0, file } } })),
    onSettled: again,
  });
  return (
    <section aria-label="Files">
      <h2>Files</h2>
      <ul className="list">
        {(files.data ?? []).map((f) => (
          <li key={f.id}>
            <span className="grow">
              <a href={`/api/invoices/${f.documentId}/attachments/${f.id}`}>{f.name}</a>{' '}
              <span className="faded small">{size(f.size)}</span>
              <label className="small faded" style={{ marginLeft: 10 }}>
                <input
                  type="checkbox"
                  checked={f.sent}
                  onChange={(e) => send.mutate({ file: f.id, sent: e.target.checked })}
                />{' '}
                send along
              </label>
            </span>
            <button
              type="button"
              className="link"
              aria-label={`Take off ${f.name}`}
              onClick={() => remove.mutate(f.id)}
            >
              Take off
            </button>
          </li>
        ))}
      </ul>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="A file to keep with this invoice"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) add.mutate(file);
          e.target.value = '';
        }}
      />
      <button type="button" className="link" onClick={() => picker.current?.click()}>
        + Add a file
      </button>
      <FieldProblem text={problemOf(add.error, 'file') ?? (add.error ? messageOf(add.error) : undefined)} />
    </section>
  );
}
