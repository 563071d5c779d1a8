'use client';
import InputBase from '@mui/material/InputBase';
import { useState } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly longest: number;
  readonly size: number;
  readonly onRename: (name: string) => void;
}

/** A name that can be typed over where it stands. */
export function EditableName({ label, value, longest, size, onRename }: Props) {
  const [text, setText] = useState(value);
  return (
    <InputBase
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text.trim() && text !== value && onRename(text.trim())}
      onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLInputElement).blur()}
      slotProps={{ input: { 'aria-label': label, maxLength: longest } }}
      sx={{
        fontSize: size,
        fontWeight: 700,
        minWidth: 60,
        width: `${Math.max(6, text.length + 2)}ch`,
        maxWidth: '100%',
        borderBottom: '1px solid transparent',
        '&:hover, &.Mui-focused': { borderColor: ink.line },
        '& input': { p: 0, height: 'auto', textOverflow: 'ellipsis' },
      }}
    />
  );
}
