'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { editsBetween, placeName, showRange } from '@/core';
import type { EndsPlan, Patch, Proposal } from '@/core';
import { counted } from '@/ui/parts/counted';
import type { DeskStore } from '@/ui/session/desk';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Ghost } from '../strip/MainStrip';
import { stagesText } from './severalEnds';
import type { EndRowOf } from './severalEnds';

interface Props {
  readonly desk: DeskStore;
  readonly patch: Patch;
  readonly rows: readonly EndRowOf[];
  readonly plan: EndsPlan;
  readonly setGhost: (ghost: Ghost | null) => void;
}

/** The chain for each end of a plan, to look at and to take over together. */
export function EndsAnswer({ desk, patch, rows, plan, setGhost }: Props) {
  const [looking, setLooking] = useState(false);
  const look = (on: boolean): void => {
    setLooking(on);
    setGhost(on ? { patch: plan.patch } : null);
  };
  const take = (): void => {
    look(false);
    desk.getState().edit(`planned: ${counted(rows.length, 'end')} from one source`, editsBetween(patch, plan.patch));
  };
  return (
    <Box
      data-ends-answer={plan.met ? 'met' : 'missed'}
      onMouseEnter={() => look(true)}
      onMouseLeave={() => look(false)}
      sx={{ mt: 1, ...(looking && { background: ink.paper }) }}
    >
      {rows.map((row, i) => (
        <OneEnd key={row.to} name={placeName(patch.modules, row.to)} proposal={plan.ends[i] ?? null} />
      ))}
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.5 }}>
        <Button color="primary" disabled={plan.ends.every((e) => e === null)} onClick={take}>
          Take all over
        </Button>
        <Button aria-pressed={looking} onClick={() => look(!looking)}>
          {looking ? 'End the preview' : 'Preview'}
        </Button>
      </Box>
    </Box>
  );
}

function OneEnd({ name, proposal }: { readonly name: string; readonly proposal: Proposal | null }) {
  if (!proposal) {
    return (
      <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
        <Box sx={{ fontWeight: 700 }}>{name}</Box>
        <Box sx={{ fontSize: 13, color: ink.warning }}>No chain leads there with what is free.</Box>
      </Box>
    );
  }
  const { stages, reading, met, why } = proposal;
  return (
    <Box data-ends-chain={met ? 'met' : 'nearest'} sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
      <Box sx={{ fontWeight: 700 }}>{name}</Box>
      <Box>{stagesText(stages)}</Box>
      {reading && <Box sx={{ fontFamily: fonts.numbers }}>{showRange(reading.low, reading.high, reading.unit)}</Box>}
      <Box sx={{ fontSize: 13, color: met ? ink.good : ink.warning }}>{met ? 'as wanted' : 'the nearest'}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{why}</Box>
    </Box>
  );
}
