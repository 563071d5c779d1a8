'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { LIMITS } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

export function PatchName({ name, onRename }: { name: string; onRename: (name: string) => void }) {
  const [text, setText] = useState(name);
  return (
    <Box
      component="input"
      aria-label="Name of the patch"
      value={text}
      maxLength={LIMITS.name}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text.trim() && text !== name && onRename(text.trim())}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      sx={{
        font: `700 15px ${fonts.text}`,
        color: ink.ink,
        background: 'none',
        border: 0,
        borderBottom: '1px solid transparent',
        width: `${Math.max(10, text.length + 2)}ch`,
        maxWidth: '60vw',
        '&:hover, &:focus': { borderColor: ink.line },
      }}
    />
  );
}
