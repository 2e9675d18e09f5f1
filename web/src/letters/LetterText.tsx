import { Input } from '@mantine/core';
import {
  type KeyboardEvent,
  type ReactNode,
  type Ref,
  useId,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import type { Schemas } from '../api/client';
import css from './LetterText.module.css';

type Field = Schemas['LetterFieldView'];

/** A field's name between braces; after a sign that begins a formula elsewhere it is text. */
const FIELD = /(?<![$#*@~%{])\{(\s*[\p{L}\p{M}\p{N}][\p{L}\p{M}\p{N} ,.'’/-]{0,59})\}/gu;
/** A brace that was just opened, and what was typed after it. */
const OPENED = /(?<![$#*@~%{])\{([^{}\n]{0,40})$/u;
const MOST_OFFERED = 8;

export interface LetterTextHandle {
  /** Puts a text where the cursor is. */
  insert: (text: string) => void;
}

/**
 * The text with its fields marked, as it lies under the field in which it is typed.
 *
 * @param mark where the anchor stands, so that it can be seen where that is
 */
function marked(value: string, known: Set<string>, mark: number, anchor: ReactNode): ReactNode[] {
  const parts: ReactNode[] = [];
  let at = 0;
  const plain = (to: number) => {
    if (mark >= at && mark <= to) parts.push(value.slice(at, mark), anchor, value.slice(mark, to));
    else parts.push(value.slice(at, to));
    at = to;
  };
  for (const found of value.matchAll(FIELD)) {
    plain(found.index);
    const name = (found[1] ?? '').trim().replace(/\s+/g, ' ').toLowerCase();
    parts.push(
      <mark key={found.index} className={known.has(name) ? css.known : css.unknown}>
        {found[0]}
      </mark>,
    );
    at = found.index + found[0].length;
  }
  plain(value.length);
  return parts;
}

/** A text with fields in it: typing { offers them, by their names and by what they mean. */
export function LetterText({
  label,
  value,
  fields,
  lines,
  problem,
  onChange,
  onFocus,
  ref,
}: {
  label: string;
  value: string;
  fields: Field[];
  /** Whether it has several lines. */
  lines: boolean;
  problem: string | undefined;
  onChange: (value: string) => void;
  onFocus: () => void;
  ref: Ref<LetterTextHandle>;
}) {
  const id = useId();
  const area = useRef<HTMLTextAreaElement>(null);
  const anchor = useRef<HTMLSpanElement>(null);
  const [opened, setOpened] = useState<{ at: number; typed: string } | null>(null);
  const [chosen, setChosen] = useState(0);
  const [place, setPlace] = useState({ left: 0, top: 0 });
  const [cursor, setCursor] = useState(-1);
  const known = new Set(fields.map((f) => f.title.toLowerCase()));
  const wanted = opened?.typed.trim().toLowerCase() ?? '';
  const offered = opened
    ? fields
        .filter((f) => lines || !f.drawn)
        .filter((f) => `${f.title} ${f.meaning}`.toLowerCase().includes(wanted))
        .sort(
          (a, b) =>
            Number(b.title.toLowerCase().startsWith(wanted)) -
            Number(a.title.toLowerCase().startsWith(wanted)),
        )
        .slice(0, MOST_OFFERED)
    : [];
  const look = (element: HTMLTextAreaElement) => {
    const before = element.value.slice(0, element.selectionStart);
    const found = element.selectionStart === element.selectionEnd ? OPENED.exec(before) : null;
    setOpened(found ? { at: found.index, typed: found[1] ?? '' } : null);
    setChosen(0);
    setCursor(element.selectionEnd);
  };
  // The page follows the cursor: a field that is as high as its text does not scroll by itself.
  useLayoutEffect(() => {
    if (cursor >= 0) anchor.current?.scrollIntoView({ block: 'nearest' });
  }, [cursor]);
  useLayoutEffect(() => {
    if (opened && anchor.current)
      setPlace({
        left: anchor.current.offsetLeft,
        top: anchor.current.offsetTop + anchor.current.offsetHeight + 4,
      });
  }, [opened]);
  /** Puts a text in place of what stands between two places, as typing would, so that a step back takes it out. */
  const replace = (from: number, to: number, text: string) => {
    const element = area.current;
    if (!element) return;
    element.focus();
    element.setSelectionRange(from, to);
    if (!document.execCommand('insertText', false, text)) {
      element.setRangeText(text, from, to, 'end');
      onChange(element.value);
    }
  };
  useImperativeHandle(ref, () => ({
    insert: (text: string) => {
      const element = area.current;
      if (element) replace(element.selectionStart, element.selectionEnd, text);
    },
  }));
  const take = (field: Field) => {
    const element = area.current;
    if (!element || !opened) return;
    replace(opened.at, element.selectionStart, `{${field.title}}`);
    setOpened(null);
  };
  const keys = (event: KeyboardEvent) => {
    if (!lines && event.key === 'Enter' && !offered.length) event.preventDefault();
    if (!offered.length) return;
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step) {
      event.preventDefault();
      setChosen((c) => (c + step + offered.length) % offered.length);
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      const field = offered[chosen];
      if (!field) return;
      event.preventDefault();
      take(field);
    } else if (event.key === 'Escape') {
      event.preventDefault();
      event.stopPropagation();
      setOpened(null);
    }
  };
  return (
    <Input.Wrapper label={label} error={problem} labelElement="label" labelProps={{ htmlFor: id }}>
      <div className={`${css.field} ${lines ? css.lines : ''} ${problem ? css.wrong : ''}`}>
        <div className={css.under} aria-hidden="true">
          {marked(
            value,
            known,
            opened?.at ?? cursor,
            <span key="anchor" ref={anchor} className={css.anchor} />,
          )}
          {'​'}
        </div>
        <textarea
          id={id}
          ref={area}
          rows={1}
          value={value}
          spellCheck
          aria-autocomplete="list"
          aria-controls={offered.length ? `${id}-fields` : undefined}
          aria-activedescendant={offered.length ? `${id}-${chosen}` : undefined}
          aria-invalid={problem ? true : undefined}
          onChange={(e) => {
            onChange(e.currentTarget.value);
            look(e.currentTarget);
          }}
          onSelect={(e) => look(e.currentTarget)}
          onKeyDown={keys}
          onFocus={onFocus}
          onBlur={() => {
            setOpened(null);
            setCursor(-1);
          }}
        />
        {offered.length > 0 && (
          <ul
            id={`${id}-fields`}
            role="listbox"
            aria-label="Fields"
            className={css.offered}
            style={{ left: `max(0px, min(${place.left}px, calc(100% - 444px)))`, top: place.top }}
          >
            {offered.map((f, i) => (
              <li
                key={f.title}
                id={`${id}-${i}`}
                role="option"
                aria-selected={i === chosen}
                // The text keeps the cursor.
                onMouseDown={(e) => {
                  e.preventDefault();
                  take(f);
                }}
              >
                <b>{f.title}</b> <span className="faded small">{f.meaning}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </Input.Wrapper>
  );
}
