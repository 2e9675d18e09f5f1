import { useEffect, useRef, useState } from 'react';
import { api, data, messageOf } from '../api/client';
import { isDay, longDate } from './format';

const shown = (value: string) => (isDay(value) ? longDate(value) : value);

/**
 * A day as people type it. What is typed goes on at once, and the server reads it too; as soon as it is understood the
 * day itself goes on, and in words stands beside the field, so that nothing is guessed in silence.
 *
 * @param lean which of several days is meant where the text alone does not say
 */
export function useLooseDate(
  value: string,
  onChange: (value: string) => void,
  lean: 'coming' | 'past' | 'near',
) {
  const [text, setText] = useState(shown(value));
  const [understood, setUnderstood] = useState('');
  const [problem, setProblem] = useState<string>();
  const typing = useRef(false);
  const latest = useRef(onChange);
  useEffect(() => {
    latest.current = onChange;
  }, [onChange]);
  // What comes from elsewhere (another window, a copy) is shown where nobody types.
  useEffect(() => {
    if (!typing.current) setText(shown(value));
  }, [value]);
  useEffect(() => {
    if (!typing.current || text.trim() === '') return;
    let old = false;
    const timer = window.setTimeout(() => {
      void data(api.GET('/api/days', { params: { query: { text, lean } } })).then(
        (answer) => {
          if (old) return;
          setUnderstood(answer.words);
          setProblem(undefined);
          latest.current(answer.day);
        },
        (error: unknown) => {
          if (old) return;
          setUnderstood('');
          setProblem(messageOf(error));
        },
      );
    }, 150);
    return () => {
      old = true;
      window.clearTimeout(timer);
    };
  }, [text, lean]);
  return {
    problem,
    /** The day in words, where what is typed says it otherwise. */
    understood: understood !== '' && understood !== text ? understood : undefined,
    input: {
      value: text,
      onChange: (next: string) => {
        typing.current = true;
        setText(next);
        setUnderstood('');
        setProblem(undefined);
        onChange(next);
      },
      onBlur: () => {
        typing.current = false;
        if (understood !== '') setText(understood);
        setUnderstood('');
      },
    },
  };
}
