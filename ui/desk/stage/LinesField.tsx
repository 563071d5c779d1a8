'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';

export type Read<T> = { readonly values: T } | { readonly fault: string };

interface Props<T> {
  readonly label: string;
  readonly text: string;
  readonly read: (text: string) => Read<T>;
  readonly onChange: (values: T) => void;
}

/** A list as lines of text, set at a button; what cannot be read stays, with its line named. */
export function LinesField<T>({ label, text: shown, read, onChange }: Props<T>) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = (): void => {
    if (text === null) return;
    const result = read(text);
    if ('fault' in result) return setFault(result.fault);
    setText(null);
    setFault(null);
    onChange(result.values);
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Box component="label" sx={{ fontSize: 13, color: ink.softInk, display: 'block' }}>
        {label}
        <Box
          component="textarea"
          rows={Math.min(8, shown.split('\n').length + 1)}
          sx={{ ...fieldStyle, display: 'block', width: '100%', maxWidth: 'none', resize: 'vertical' }}
          value={text ?? shown}
          onChange={(e) => setText(e.target.value)}
        />
      </Box>
      {fault && (
        <Box role="alert" sx={{ fontSize: 12, color: ink.error }}>
          {fault}
        </Box>
      )}
      {text !== null && <Button onClick={finish}>Set</Button>}
    </Box>
  );
}
