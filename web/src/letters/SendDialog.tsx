import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { usePhone } from '../design/useNarrow';
import { type Given, SendOtherwise, type Way } from './SendOtherwise';
import type { Channel, Look, Slip } from './slip';
import { SlipForm } from './SlipForm';
import css from './Letters.module.css';
import { Dialog } from '../design/Dialog';

const words: Record<Way, string> = {
  mail: 'By e-mail',
  text: 'By text message',
  link: 'A link',
  code: 'A code on screen',
  paper: 'On paper',
};

/** What goes and to whom, before it goes; address, subject and a line of one's own can be changed this once. */
export function SendDialog({
  title,
  action,
  look,
  send,
  onClose,
  onBack,
  later = false,
  first = 'MAIL',
  given = null,
  mailOnly = false,
}: {
  title: string;
  action: string;
  look: (slip: Slip) => Promise<Look>;
  send: (slip: Slip) => Promise<unknown>;
  onClose: () => void;
  /** Back to what the letter comes of, as it was typed. */
  onBack?: () => void;
  /** By which way it goes where nothing else is chosen. */
  first?: Channel;
  /** Whether it can leave at a moment of its own. */
  later?: boolean;
  /** What can be given otherwise too; null where it cannot be yet. */
  given?: Given | null;
  /** Whether it goes to no telephone. */
  mailOnly?: boolean;
}) {
  const narrow = usePhone();
  const [way, setWay] = useState<Way>(first === 'TEXT' ? 'text' : 'mail');
  const [channels, setChannels] = useState<Channel[]>([first, 'MAIL']);
  const ways: Way[] = [
    'mail',
    ...(channels.includes('TEXT') && !mailOnly ? (['text'] as const) : []),
    ...(given ? (['link', 'code', 'paper'] as const) : []),
  ];
  return (
    <Dialog onClose={onClose} title={title} size="lg">
      {ways.length > 1 && (
        <SegmentedControl
          aria-label="How"
          className={css.ways}
          orientation={narrow ? 'vertical' : 'horizontal'}
          fullWidth={narrow}
          value={way}
          onChange={(w) => setWay(w as Way)}
          data={ways.map((w) => ({ value: w, label: words[w] }))}
        />
      )}
      {way === 'mail' || way === 'text' ? (
        <SlipForm
          key={way}
          channel={way === 'text' ? 'TEXT' : 'MAIL'}
          action={action}
          look={look}
          send={send}
          later={later}
          onChannels={setChannels}
          onClose={onClose}
        />
      ) : (
        given && <SendOtherwise way={way} given={given} onClose={onClose} />
      )}
      {onBack && (
        <p style={{ marginBottom: 0 }}>
          <button type="button" className="link" onClick={onBack}>
            Back to what you typed
          </button>
        </p>
      )}
    </Dialog>
  );
}
