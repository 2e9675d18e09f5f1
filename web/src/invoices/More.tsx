import { Button, Menu } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, messageOf, refusalOf, type Schemas } from '../api/client';
import { WithdrawDialog } from './WithdrawDialog';
import { savedOf } from '../api/clients';
import { CollectDialog } from '../moneyin/CollectDialog';
import { FromSavedDialog } from '../moneyin/FromSavedDialog';
import { WriteOffDialog } from './WriteOffDialog';
import { copyLink } from '../design/copyLink';
import { isZero } from '../design/format';
import { tell } from '../design/tell';
import { LinkDialog } from '../letters/LinkDialog';
import { correctionsOf } from '../api/invoices';

/** Fetches a file; where it is refused, the reasons are told instead of an answer that cannot be read. */
async function save(path: string, name: string) {
  const response = await fetch(path);
  if (!response.ok) {
    const refusal = await refusalOf(response);
    throw new Error(refusal.problems.map((p) => p.message).join('. ') || refusal.message);
  }
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** What is done with an issued invoice less often. */
export function More({
  invoice,
  voided,
  narrow,
  onCredit,
  onRearrange,
  onAsk,
}: {
  invoice: Schemas['InvoiceView'];
  voided: boolean;
  /** Whether what stands in the foot of a wide window stands here. */
  narrow: boolean;
  onCredit: (() => void) | null;
  onRearrange: (() => void) | null;
  onAsk: (() => void) | null;
}) {
  const { id } = invoice;
  const issued = invoice.issued as Schemas['Issued'];
  const number = issued.document.number;
  const [withdrawing, setWithdrawing] = useState<'draft' | 'void' | null>(null);
  const [linking, setLinking] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const corrections = useQuery(correctionsOf(id));
  const [writingOff, setWritingOff] = useState(false);
  const [collecting, setCollecting] = useState(false);
  const [fromSaved, setFromSaved] = useState(false);
  const saved = useQuery({ ...savedOf(invoice.clientId ?? 0), enabled: invoice.clientId != null }).data;
  const kept = (saved?.methods.length ?? 0) > 0;
  const again = useMutation({
    mutationFn: () => data(api.POST('/api/invoices/{id}/owed-again', { params: { path: { id } } })),
    onError: (error) => tell(messageOf(error)),
    onSettled: () => queries.invalidateQueries(),
  });
  const duplicate = useMutation({
    mutationFn: () => data(api.POST('/api/invoices/{id}/duplicate', { params: { path: { id } } })),
    onSuccess: (draft) => {
      void queries.invalidateQueries();
      void navigate(`/invoices/${draft.id}`);
    },
  });
  const ubl = () =>
    void save(`/api/invoices/${id}/ubl`, `invoice-${number}.xml`).catch((error: unknown) =>
      tell(messageOf(error), { title: 'It cannot be written as UBL', autoClose: false }),
    );
  const unseen = !voided && (corrections.data?.unseen ?? false) && issued.creditNotes.length === 0;
  return (
    <>
      <Menu position="top-end" withinPortal>
        <Menu.Target>
          <Button variant="outline">More</Button>
        </Menu.Target>
        <Menu.Dropdown>
          {narrow && onCredit && <Menu.Item onClick={onCredit}>Credit…</Menu.Item>}
          {onAsk && <Menu.Item onClick={onAsk}>Ask for money…</Menu.Item>}
          {onRearrange && <Menu.Item onClick={onRearrange}>Rearrange installments…</Menu.Item>}
          {onAsk && <Menu.Item onClick={() => setCollecting(true)}>Take a card…</Menu.Item>}
          {onAsk && kept && <Menu.Item onClick={() => setFromSaved(true)}>Take from what is kept…</Menu.Item>}
          {onAsk && <Menu.Item onClick={() => setWritingOff(true)}>Write off what is open…</Menu.Item>}
          {!isZero(issued.writtenOff) && (
            <Menu.Item onClick={() => again.mutate()}>What was written off is owed again</Menu.Item>
          )}
          {narrow && invoice.clientId != null && (
            <Menu.Item onClick={() => void navigate(`/clients/${invoice.clientId}`)}>
              The client’s account
            </Menu.Item>
          )}
          {narrow && (
            <Menu.Item component="a" href={`/api/invoices/${id}/pdf`} target="_blank">
              PDF
            </Menu.Item>
          )}
          <Menu.Item component="a" href={`/api/invoices/${id}/pdf?reckoning=true`} target="_blank">
            PDF with the reckoning
          </Menu.Item>
          {!voided && <Menu.Item onClick={ubl}>Save as a UBL file</Menu.Item>}
          {issued.link && (
            <Menu.Item onClick={() => void copyLink(issued.link)}>Copy the link to its page</Menu.Item>
          )}
          <Menu.Item onClick={() => setLinking(true)}>The link to its page…</Menu.Item>
          <Menu.Item onClick={() => duplicate.mutate()}>Write another like it</Menu.Item>
          {unseen && <Menu.Item onClick={() => setWithdrawing('draft')}>Change it, still unseen</Menu.Item>}
          {unseen && <Menu.Item onClick={() => setWithdrawing('void')}>Void it</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
      {writingOff && <WriteOffDialog id={id} issued={issued} onClose={() => setWritingOff(false)} />}
      {collecting && (
        <CollectDialog
          id={id}
          clientId={invoice.clientId ?? null}
          number={number}
          parts={issued.measure}
          onClose={() => setCollecting(false)}
        />
      )}
      {fromSaved && invoice.clientId != null && (
        <FromSavedDialog
          id={id}
          clientId={invoice.clientId}
          number={number}
          parts={issued.measure}
          open={issued.open}
          onClose={() => setFromSaved(false)}
        />
      )}
      {linking && <LinkDialog id={id} number={number} onClose={() => setLinking(false)} />}
      {withdrawing && (
        <WithdrawDialog
          id={id}
          number={number}
          forGood={withdrawing === 'void'}
          onClose={() => setWithdrawing(null)}
        />
      )}
    </>
  );
}
