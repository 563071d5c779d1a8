'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import type { readTyped } from '@/core';
import { TextInput } from './TextInput';

interface Props {
  /** What was typed at the knob, and begins the entry. */
  readonly first: string;
  readonly label: string;
  readonly read: (text: string) => ReturnType<typeof readTyped>;
  readonly onDone: (value: number | null) => void;
}

/** A knob's value, typed; what cannot be read stays, with the reason. */
export function TypedValue({ first, label, read, onDone }: Props) {
  const [text, setText] = useState(first);
  const [fault, setFault] = useState<string | null>(null);
  const finish = (): void => {
    if (text.trim() === '') return onDone(null);
    const typed = read(text);
    if (typed.ok) onDone(typed.value);
    else setFault(typed.message);
  };
  const settle = useRef(finish);
  useEffect(() => {
    settle.current = finish;
  });
  // A page that goes away sets what is typed.
  useEffect(() => {
    const leaving = (): void => settle.current();
    window.addEventListener('pagehide', leaving, { capture: true });
    return () => window.removeEventListener('pagehide', leaving, { capture: true });
  }, []);
  const onKey = (e: KeyboardEvent): void => {
    e.stopPropagation();
    if (e.key === 'Enter') finish();
    else if (e.key === 'Escape') onDone(null);
  };
  return (
    <Box sx={{ px: 1.5 }}>
      <TextInput
        autoFocus
        figures
        fullWidth
        label={`${label}, typed`}
        value={text}
        fault={fault}
        onChange={setText}
        onBlur={() => (fault === null ? finish() : onDone(null))}
        onKeyDown={onKey}
      />
    </Box>
  );
}
