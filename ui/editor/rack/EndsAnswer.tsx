'use client';
import { channels } from '@/ui/session/channels';
import Box from '@mui/material/Box';
import { editsBetween, placeName, withNames } from '@/core';
import type { EndsPlan, Patch, Proposal } from '@/core';
import { counted } from '@/ui/parts/counted';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { ApplyOrPreview } from '../preview/ApplyOrPreview';
import { usePreview } from '../preview/usePreview';
import { Promised } from './Promised';
import { stagesText } from '@/ui/parts/stagesText';
import type { EndRowOf } from './severalEnds';

interface Props {
  readonly desk: DeskStore;
  readonly patch: Patch;
  readonly rows: readonly EndRowOf[];
  readonly plan: EndsPlan;
}

/** The chain for each end of a plan, to look at and to take over together. */
export function EndsAnswer({ desk, patch, rows, plan }: Props) {
  const preview = usePreview(() => ({ patch: plan.patch }));
  const take = (): void =>
    desk.getState().edit(`Route one source to ${counted(rows.length, 'destination')}`, editsBetween(patch, plan.patch));
  return (
    <Box
      data-ends-answer={plan.met ? 'met' : 'missed'}
      {...preview.area}
      sx={{ mt: 1, ...(preview.showing && { background: ink.paper }) }}
    >
      {rows.map((row, i) => (
        <OneEnd key={row.to} name={placeName(patch.modules, row.to)} proposal={plan.ends[i] ?? null} />
      ))}
      <ApplyOrPreview
        preview={preview}
        label="Apply all"
        disabled={plan.ends.every((e) => e === null)}
        onApply={take}
      />
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
