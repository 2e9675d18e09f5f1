import type { Why } from '../api/client';

export type Asked = { title: string; why: Why };

/** The note in the margin: the rule, and the numbers that a figure came from. */
export function WhyNote({ asked }: { asked: Asked | null }) {
  return (
    <aside className="why" aria-live="polite" hidden={!asked}>
      {asked && (
        <>
          <h3>Why {asked.title}?</h3>
          <p>{asked.why.rule}</p>
          {asked.why.steps.map((step, i) => (
            <p key={`${i}-${step}`}>{step}</p>
          ))}
        </>
      )}
    </aside>
  );
}

/** A figure that says why when it is pressed or pointed at. */
export function WhyFigure({ text, why, onAsk }: { text: string; why: Why; onAsk: (asked: Asked) => void }) {
  const ask = () => onAsk({ title: text, why });
  return (
    <button type="button" className="figure-why money" onClick={ask} onMouseEnter={ask} title="Why?">
      {text}
    </button>
  );
}
