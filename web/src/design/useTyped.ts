import { type ChangeEvent, useEffect, useRef, useState } from 'react';

/** A text that the address holds, typed here at once: the address follows, which takes longer than the next key. */
export function useTyped(value: string, onChange: (value: string) => void) {
  const [text, setText] = useState(value);
  const typing = useRef(false);
  useEffect(() => {
    if (!typing.current) setText(value);
  }, [value]);
  return {
    value: text,
    onChange: (event: ChangeEvent<HTMLInputElement>) => {
      typing.current = true;
      setText(event.currentTarget.value);
      onChange(event.currentTarget.value);
    },
    onBlur: () => {
      typing.current = false;
      setText(value);
    },
  };
}
