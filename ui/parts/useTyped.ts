'use client';
import { useEffect, useId, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { typing } from './typing';

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

/** One entry into a field, from its first letter until the field is left. */
interface Entry {
  readonly number: number;
  /** What stood there before. */
  readonly before: string;
  /** The last text that was put, or refused. */
  readonly tried: string | null;
}

/** The pause after which typed text is applied, milliseconds. */
const QUIET = 600;

/**
 * A field's text while it is typed: put as it is typed, once the hand rests, and when the field is left or Enter is
 * pressed; taken back with Escape. What is refused stays, with the reason once the field is left.
 *
 * @param value as it is shown while nothing is typed.
 * @param put takes what was typed, or says what is wrong with it.
 */
export function useTyped(value: string, put: (text: string) => string | null): Typed {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const id = useId();
  const entry = useRef<Entry>({ number: 0, before: value, tried: null });
  const putNow = (typed: string): string | null => {
    entry.current = { ...entry.current, tried: typed };
    return typing(`${id} ${entry.current.number}`, () => put(typed.trim()));
  };
  /** Puts what is typed by now; what is refused may be half a word, and is said when the field is left. */
  const settle = useRef<() => void>(() => undefined);
  useEffect(() => {
    settle.current = () => {
      if (text !== null && text !== value && text !== entry.current.tried) putNow(text);
    };
  });
  useEffect(() => {
    if (text === null) return;
    const timer = setTimeout(() => settle.current(), QUIET);
    // A page that goes away takes what is typed with it: it is put before the page's draft is kept.
    const leaving = (): void => settle.current();
    window.addEventListener('pagehide', leaving, { capture: true });
    return () => {
      clearTimeout(timer);
      window.removeEventListener('pagehide', leaving, { capture: true });
    };
  }, [text]);
  const leave = (): void => {
    setText(null);
    setFault(null);
  };
  const onChange = (next: string): void => {
    if (text === null) entry.current = { number: entry.current.number + 1, before: value, tried: null };
    setText(next);
  };
  const finish = (): void => {
    const found = text === null || text === value ? null : putNow(text);
    if (found === null) leave();
    else setFault(found);
  };
  const onKeyDown = (e: KeyboardEvent): void => {
    if (e.key === 'Enter') finish();
    if (e.key !== 'Escape' || text === null) return;
    if (value !== entry.current.before) putNow(entry.current.before);
    leave();
    // Whoever else waits for Escape gets the next one.
    e.stopPropagation();
  };
  return { fault, field: { value: text ?? value, onChange, onBlur: finish, onKeyDown } };
}
