'use client';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';

interface Typed {
  /** Why the text was refused; null where it was not. */
  readonly fault: string | null;
  readonly field: {
    readonly value: string;
    onChange(text: string): void;
    onBlur(): void;
    onKeyDown(e: KeyboardEvent): void;
  };
}

/**
 * A field's text while it is typed: put when the field is left or Enter is pressed, taken back with Escape. What is
 * refused stays, with the reason.
 *
 * @param value as it is shown while nothing is typed.
 * @param put takes what was typed, or says what is wrong with it.
 */
export function useTyped(value: string, put: (text: string) => string | null): Typed {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const leave = (): void => {
    setText(null);
    setFault(null);
  };
  const finish = (): void => {
    const found = text === null || text === value ? null : put(text.trim());
    if (found === null) leave();
    else setFault(found);
  };
  const onKeyDown = (e: KeyboardEvent): void => {
    if (e.key === 'Enter') finish();
    if (e.key !== 'Escape' || text === null) return;
    leave();
    // Whoever else waits for Escape gets the next one.
    e.stopPropagation();
  };
  return { fault, field: { value: text ?? value, onChange: setText, onBlur: finish, onKeyDown } };
}
