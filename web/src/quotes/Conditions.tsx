import { RichTextEditor } from '@mantine/tiptap';
import Link from '@tiptap/extension-link';
import { useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useState } from 'react';
import { type Change, FieldProblem } from '../invoices/fields';
import type { Typed } from '../invoices/useDraft';
import '@mantine/tiptap/styles.css';

const EMPTY = '<p></p>';

/** Terms and conditions that are accepted with a quote. */
export function Conditions({
  typed,
  change,
  problem,
}: {
  typed: Typed;
  change: Change;
  problem: string | undefined;
}) {
  const before = typed.offer?.conditions ?? '';
  const [called, setCalled] = useState(before !== '');
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ link: false, codeBlock: false, code: false }),
      Link.configure({ openOnClick: false }),
    ],
    content: before,
    injectCSS: false,
    onUpdate: ({ editor: e }) => {
      const html = e.getHTML();
      const conditions = html === EMPTY ? '' : html;
      change((t) => ({ ...t, offer: { validUntil: '', ...t.offer, conditions } }), 'conditions');
    },
  });
  if (!called)
    return (
      <p className="adding">
        <button type="button" className="link" onClick={() => setCalled(true)}>
          + Terms and conditions to be accepted
        </button>
      </p>
    );
  return (
    <section aria-label="Terms and conditions">
      <h2>Terms and conditions</h2>
      <RichTextEditor editor={editor}>
        <RichTextEditor.Toolbar>
          <RichTextEditor.ControlsGroup>
            <RichTextEditor.Bold />
            <RichTextEditor.Italic />
            <RichTextEditor.H3 />
          </RichTextEditor.ControlsGroup>
          <RichTextEditor.ControlsGroup>
            <RichTextEditor.BulletList />
            <RichTextEditor.OrderedList />
            <RichTextEditor.Link />
            <RichTextEditor.Unlink />
          </RichTextEditor.ControlsGroup>
        </RichTextEditor.Toolbar>
        <RichTextEditor.Content />
      </RichTextEditor>
      <FieldProblem text={problem} />
    </section>
  );
}
