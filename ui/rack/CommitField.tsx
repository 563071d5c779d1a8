'use client';
import Box from '@mui/material/Box';
import FormHelperText from '@mui/material/FormHelperText';
import { useState } from 'react';
import { TextInput } from '@/ui/parts/TextInput';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly width?: number | string;
  readonly figures?: boolean;
  /** Takes what was typed, or says what is wrong with it. */
  readonly onPut: (text: string) => string | null;
}

/** A text that is put when the field is left or Enter is pressed; what is refused stays, with the reason. */
export function CommitField({ label, value, placeholder, width = 128, figures = true, onPut }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = (): void => {
    if (text === null || text === value) return setText(null);
    const found = onPut(text.trim());
    setFault(found);
    if (found === null) setText(null);
  };
  return (
    <Box sx={{ width, flexShrink: 0 }}>
      <TextInput
        label={label}
        figures={figures}
        fullWidth
        placeholder={placeholder ?? ''}
        error={fault !== null}
        value={text ?? value}
        onChange={setText}
        onBlur={finish}
        onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLInputElement).blur()}
      />
      {fault !== null && (
        <FormHelperText error role="alert">
          {fault}
        </FormHelperText>
      )}
    </Box>
  );
}
