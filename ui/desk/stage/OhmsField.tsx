'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { OHMS, readQuantity } from '@/core';
import type { Patch } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';
import type { Edit } from '../edit';
import { setOhms } from '../edits';

interface Props {
  readonly module: string;
  readonly side: 'inputOhms' | 'outputOhms';
  readonly name: string;
  readonly patch: Patch;
  readonly edit: Edit;
}

/** How much an input loads what is plugged into it, or how much an output gives way under its load. */
export function OhmsField({ module: id, side, name, patch, edit }: Props) {
  const given = patch.modules.find((m) => m.id === id)?.[side]?.[name];
  const usual = side === 'inputOhms' ? OHMS.input : OHMS.output;
  const [text, setText] = useState<string | null>(null);
  const typed = text === null ? (given ?? usual) : readQuantity(text, '\u03a9');
  const least = side === 'inputOhms' ? 1 : 0;
  const fault = typed === null || typed < least || typed > OHMS.max;
  const finish = (): void => {
    if (fault || text === null) return;
    setText(null);
    if (typed !== (given ?? usual))
      edit(`ohms of ${id}.${name}`, (p) => setOhms(p, id, side, name, typed === usual ? null : typed));
  };
  return (
    <Box component="label" sx={{ display: 'block', pl: 2, pb: 0.5 }}>
      {side === 'inputOhms' ? 'loads with ' : 'source of '}
      <Box
        component="input"
        aria-label={`Ohms of ${id}.${name}`}
        aria-invalid={fault}
        value={text ?? String(given ?? usual)}
        onChange={(e) => setText(e.target.value)}
        onBlur={finish}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        sx={{ ...fieldStyle, width: 84 }}
      />
      {' \u03a9'}
      {fault && <Box role="alert" component="span" sx={{ color: ink.error }}>{` From ${least} to ${OHMS.max}.`}</Box>}
    </Box>
  );
}
