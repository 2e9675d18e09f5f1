export type PayerNames = { name: string; email: string };

export const nobody: PayerNames = { name: '', email: '' };

/** Whoever pays, where that is somebody else: the receipt goes there too. */
export function Payer({
  payer,
  receipts = true,
  onChange,
}: {
  payer: PayerNames;
  /** Whether whoever pays is sent a receipt. */
  receipts?: boolean;
  onChange: (payer: PayerNames) => void;
}) {
  return (
    <details>
      <summary className="small">
        Does somebody else pay?{receipts && ' The receipt can go there too.'}
      </summary>
      <label className="sign">
        Name
        <input
          type="text"
          autoComplete="name"
          maxLength={120}
          value={payer.name}
          onChange={(e) => onChange({ ...payer, name: e.target.value })}
        />
      </label>
      <label className="sign">
        E-mail address
        <input
          type="email"
          autoComplete="email"
          maxLength={200}
          value={payer.email}
          onChange={(e) => onChange({ ...payer, email: e.target.value })}
        />
      </label>
    </details>
  );
}
