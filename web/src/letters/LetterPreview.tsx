import { SegmentedControl } from '@mantine/core';
import { useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import css from './LettersPage.module.css';

/** A letter as a mail program shows it, in either form. Nothing in it can be pressed. */
export function LetterPreview({
  preview,
  bare,
}: {
  preview: Schemas['LetterPreview'];
  /** Whether it goes to a telephone, or is said on the client's page: then there is one form, and no subject. */
  bare: boolean;
}) {
  const [form, setForm] = useState('html');
  const [height, setHeight] = useState(420);
  const frame = useRef<HTMLIFrameElement>(null);
  if (bare)
    return (
      <>
        <p className="small faded" style={{ margin: '0 0 6px' }}>
          {preview.about}
        </p>
        <div className={css.mail}>
          <pre className={css.said} tabIndex={0}>
            {preview.text}
          </pre>
        </div>
      </>
    );
  return (
    <>
      <p className="small faded" style={{ margin: '0 0 6px' }}>
        {preview.about}
      </p>
      <div className={css.mail}>
        <p className={css.subject} data-testid="preview-subject">
          {preview.subject}
        </p>
        {form === 'html' ? (
          <iframe
            ref={frame}
            title="The letter as it would arrive"
            sandbox="allow-same-origin"
            inert
            srcDoc={preview.html}
            style={{ height }}
            onLoad={() =>
              setHeight((frame.current?.contentDocument?.documentElement.scrollHeight ?? 420) + 2)
            }
          />
        ) : (
          <pre tabIndex={0}>{preview.text}</pre>
        )}
      </div>
      <SegmentedControl
        size="xs"
        aria-label="Form"
        value={form}
        onChange={setForm}
        data={[
          { value: 'html', label: 'With layout' },
          { value: 'text', label: 'As plain text' },
        ]}
      />
    </>
  );
}
