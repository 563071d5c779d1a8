'use client';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo } from 'react';
import { knobLines, knobName } from '@/core';
import type { Sheet, SheetStep } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Tick } from '@/wire/requests';
import { ReadingFields } from './ReadingFields';

interface Props {
  readonly sheet: Sheet;
  readonly step: SheetStep;
  readonly tick: Tick | undefined;
  readonly mark: (id: string, change: Partial<Omit<Tick, 'at'>>) => void;
  readonly large?: boolean;
  /** Where a wrong reading's fault is looked for; left out where it cannot be. */
  readonly fault?: string | null;
}

/** One step: a box to tick, what to do, and what must be read there, with a place for what was. */
export const StepRow = memo(function StepRow({ sheet, step, tick, mark, large, fault = null }: Props) {
  const done = tick?.done === true;
  const place = step.do === 'set' && step.channel ? ` (${step.channel})` : '';
  return (
    <Box
      data-step={step.id}
      data-done={done}
      sx={{
        borderTop: `1px solid ${ink.line}`,
        py: large ? 2 : 0.75,
        fontSize: large ? 22 : 'inherit',
        breakInside: 'avoid',
      }}
    >
      <FormControlLabel
        sx={{
          alignItems: 'flex-start',
          m: 0,
          minHeight: 44,
          '& .MuiFormControlLabel-label': { pt: 1, fontSize: 'inherit', lineHeight: 1.35 },
        }}
        control={
          <Checkbox
            checked={done}
            onChange={(e) => mark(step.id, { done: e.target.checked })}
            sx={{ p: 1, '& .MuiSvgIcon-root': { fontSize: large ? 34 : 26 } }}
          />
        }
        label={
          <Box component="span" sx={{ color: done ? ink.softInk : ink.ink }}>
            {step.text + place}
          </Box>
        }
      />
      <Box sx={{ pl: { xs: 1, md: 5.5 } }}>
        {step.do === 'set' && <Knobs sheet={sheet} step={step} />}
        {step.do === 'measure' && (
          <ReadingFields step={step} reads={tick?.reads ?? {}} note={tick?.read} mark={mark} fault={fault} />
        )}
      </Box>
    </Box>
  );
});

function Knobs({ sheet, step }: { readonly sheet: Sheet; readonly step: Extract<SheetStep, { do: 'set' }> }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
      {step.knobs.map((k) => {
        const { arc, pointer, size } = knobLines(k.percent / 100);
        return (
          <Box key={k.param} sx={{ width: 78, textAlign: 'center' }}>
            <svg width={40} height={40} viewBox={`0 0 ${size} ${size}`} aria-hidden>
              <path d={arc} fill="none" stroke="currentColor" strokeWidth={1} />
              <path d={pointer} fill="none" stroke="currentColor" strokeWidth={2.5} strokeLinecap="round" />
            </svg>
            <Box sx={{ fontFamily: fonts.numbers, fontWeight: 700, fontSize: 15 }}>{k.clock}</Box>
            <Box sx={{ fontSize: 13, color: ink.softInk, lineHeight: 1.2 }}>
              {knobName(sheet, step.module, k.param)}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
