'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { TextInput } from '@/ui/parts/TextInput';
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
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 0.5 }}>{label}</Box>
      <TextInput
        label={label}
        figures
        fullWidth
        lines={[2, 8]}
        value={text ?? shown}
        fault={fault}
        onChange={setText}
      />
      {text !== null && (
        <Button onClick={finish} sx={{ mt: 0.5 }}>
          Set
        </Button>
      )}
    </Box>
  );
}
