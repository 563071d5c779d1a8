'use client';
import { channels } from '@/ui/session/channels';
import Box from '@mui/material/Box';
import { editsBetween, placeName, withNames } from '@/core';
import type { EndsPlan, Patch, Proposal } from '@/core';
import { counted } from '@/ui/parts/counted';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import type { Ghost } from '../strip/MainStrip';
import { Promised, TakeOrLook, usePreview } from './preview';
import { stagesText } from '@/ui/parts/stagesText';
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
  const preview = usePreview(plan.patch, setGhost);
  const { looking, look } = preview;
  const take = (): void =>
    desk.getState().edit(`Route one source to ${counted(rows.length, 'destination')}`, editsBetween(patch, plan.patch));
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
      <TakeOrLook {...preview} says="Apply all" disabled={plan.ends.every((e) => e === null)} onTake={take} />
    </Box>
  );
}

function OneEnd({ name, proposal }: { readonly name: string; readonly proposal: Proposal | null }) {
  if (!proposal) {
    return (
      <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
        <Box sx={{ fontWeight: 700 }}>{name}</Box>
        <Box sx={{ fontSize: 13, color: ink.warning }}>No path is possible with the free channels.</Box>
      </Box>
    );
  }
  const { stages, reading, met, why } = proposal;
  const rack = channels.getState().rack;
  return (
    <Box data-ends-chain={met ? 'met' : 'nearest'} sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
      <Box sx={{ fontWeight: 700 }}>{name}</Box>
      <Box>{stagesText(stages, rack)}</Box>
      <Promised reading={reading} met={met} why={withNames(proposal.patch.modules, why)} />
    </Box>
  );
}
