import { Radio } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { receiptSetting } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';

type Setting = Schemas['ReceiptSetting'];

const choices = [
  ['RECEIPT', 'A receipt', 'What came, what it settled, and what is left.'],
  [
    'MARKED_INVOICE',
    'The invoice, marked paid',
    'A receipt; with what pays all of an invoice, the invoice goes along, marked paid.',
  ],
  [
    'NOTHING',
    'Nothing',
    'What is paid ahead on a quote, or through a payment link, is receipted all the same: no other paper says that it came.',
  ],
] as const;

/** What whoever paid is sent. */
export function Receipts() {
  const queries = useQueryClient();
  const setting = useQuery(receiptSetting);
  const change = useMutation({
    mutationFn: (to: Setting) => data(api.PUT('/api/receipt-setting', { body: to })),
    onSuccess: (now) => queries.setQueryData(receiptSetting.queryKey, now),
    // Another window may have been faster: what stands is shown.
    onError: () => queries.invalidateQueries({ queryKey: receiptSetting.queryKey }),
  });
  return (
    <Loaded query={setting} what="what payers are sent">
      {(s) => (
        <>
          <h2 style={{ marginTop: 32 }}>What the payer gets</h2>
          <Radio.Group
            aria-label="What the payer gets"
            value={change.isPending ? change.variables.gets : s.gets}
            onChange={(gets) => change.mutate({ gets, version: s.version })}
          >
            {choices.map(([gets, label, description]) => (
              <Radio key={gets} mt={8} value={gets} label={label} description={description} />
            ))}
          </Radio.Group>
          <p className="small faded">
            A payment that you record yourself has a tick of its own for that. This is for what comes from now
            on.
          </p>
          <Refusal error={change.error} />
        </>
      )}
    </Loaded>
  );
}
