import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiError, messageOf, type Schemas } from '../api/client';
import { upload } from '../api/upload';
import { Dialog } from '../design/Dialog';

/** Takes an invoice in UBL in as a draft, and says what to look at before it is issued. */
export function FromFile() {
  const picker = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [told, setTold] = useState<Schemas['Imported'] | null>(null);
  const take = useMutation({
    mutationFn: (file: File) => upload<Schemas['Imported']>('/api/imports/ubl', file),
    onSuccess: (imported) => {
      void queries.invalidateQueries();
      if (imported.said.length > 0) setTold(imported);
      else void navigate(`/invoices/${imported.draftId}`);
    },
  });
  const reasons =
    take.error instanceof ApiError && take.error.problems.length > 0
      ? take.error.problems.map((p) => (p.value ? `${p.value}: ${p.message}` : p.message))
      : take.error
        ? [messageOf(take.error)]
        : [];
  return (
    <p className="empty small">
      <input
        ref={picker}
        type="file"
        hidden
        accept=".xml,application/xml,text/xml"
        aria-label="An invoice in UBL"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) take.mutate(file);
          e.target.value = '';
        }}
      />
      <button type="button" className="link" onClick={() => picker.current?.click()}>
        Read an invoice from a UBL file
      </button>
      {reasons.length > 0 && (
        <span className="problem" role="alert">
          Not taken in. {reasons.join('. ')}
        </span>
      )}
      {told && (
        <Dialog onClose={() => setTold(null)} title="Taken in as a draft. Look at this first:">
          <ul>
            {told.said.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          <Button onClick={() => void navigate(`/invoices/${told.draftId}`)}>Open the draft</Button>
        </Dialog>
      )}
    </p>
  );
}
