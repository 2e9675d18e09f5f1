/** Where a name is typed as a signature, with what is kept of it. */
export function Signature({
  name,
  wrong,
  onChange,
}: {
  name: string;
  wrong: string | undefined;
  onChange: (name: string) => void;
}) {
  return (
    <>
      <label className="sign">
        Your name, as a signature
        <input
          type="text"
          autoComplete="name"
          value={name}
          maxLength={200}
          aria-invalid={Boolean(wrong)}
          onChange={(e) => onChange(e.target.value)}
        />
      </label>
      {wrong && (
        <p className="told refused" role="alert">
          {wrong}
        </p>
      )}
      <p className="faded small">
        Your name, the time and your internet address are kept with the text that you accept.
      </p>
    </>
  );
}
