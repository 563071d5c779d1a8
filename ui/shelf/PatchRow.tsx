'use client';
import { counted } from '@/ui/parts/counted';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime';
import { memo } from 'react';
import { showRange } from '@/core';
import { SafeLink } from '@/ui/parts/SafeLink';
import { fonts, ink } from '@/ui/theme/tokens';
import type { ListedPatch } from '@/wire/patches';
import type { Tonight } from '@/wire/racks';
import { PatchMenu } from './PatchMenu';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { StripPicture } from './StripPicture';
import { cellStyle, rowStyle } from './tableStyle';
import { WorstFinding } from './WorstFinding';

dayjs.extend(relativeTime);

interface Props {
  readonly patch: ListedPatch;
  readonly chosen: boolean;
  /** Whether it can be patched with the chosen rack; null where none is. */
  readonly tonight: Tonight | null;
  readonly onChoose: (id: string) => void;
  readonly onChanged: () => Promise<void>;
  readonly onRemove: (patch: ListedPatch) => void;
}

const linkStyle = {
  fontWeight: 700,
  fontSize: 15,
  color: ink.ink,
  textDecoration: 'none',
  '&::after': { content: '""', position: 'absolute', inset: 0 },
} as const;

/** One patch: its strip, its name and ends, its tags, its worst finding, and when it was changed. */
export const PatchRow = memo(function PatchRow({ patch, chosen, tonight, onChoose, onChanged, onRemove }: Props) {
  return (
    <TableRow component="div" data-patch={patch.id} data-chosen={chosen} sx={rowStyle}>
      <TableCell component="div" role="cell" sx={cellStyle.box}>
        <Checkbox
          checked={chosen}
          onChange={() => onChoose(patch.id)}
          slotProps={{ input: { 'aria-label': `Select ${patch.name}` } }}
          sx={{ position: 'relative', zIndex: 1 }}
        />
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.picture}>
        <StripPicture strip={patch.summary?.strip ?? []} />
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.name}>
        <Box component={SafeLink} href={`/patches/${patch.id}`} sx={linkStyle}>
          {patch.name}
        </Box>
        {(patch.summary?.ends ?? []).slice(0, 3).map((e) => (
          <Box key={e.label} sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', color: ink.softInk }}>
            <span>{e.label}</span>
            <Box component="span" sx={{ fontFamily: fonts.numbers }}>
              {showRange(e.low, e.high, e.unit)}
            </Box>
          </Box>
        ))}
        {patch.summary && <WantedLine {...patch.summary.wanted} />}
        {tonight && <RackLine {...tonight} />}
      </TableCell>
      <TableCell component="div" role="cell" sx={{ ...cellStyle.tags, color: ink.softInk }}>
        {patch.tags.join(', ')}
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.findings}>
        <WorstFinding {...patch} />
      </TableCell>
      <TableCell
        component="div"
        role="cell"
        title={dayjs(patch.updatedAt).format('YYYY-MM-DD HH:mm')}
        sx={{ ...cellStyle.changed, color: ink.softInk }}
      >
        {dayjs(patch.updatedAt).fromNow()}
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.menu}>
        <PatchMenu patch={patch} onChanged={onChanged} onRemove={() => onRemove(patch)} />
      </TableCell>
    </TableRow>
  );
});

/** Whether it can be patched with the chosen rack. */
function RackLine({ short, standIns }: Tonight) {
  const { name: rack } = useChosenRack();
  const can = short.length === 0;
  const says = can
    ? `Fits ${rack}${standIns > 0 ? ` (${counted(standIns, 'substitute')})` : ''}`
    : `Missing from ${rack}: ${short.slice(0, 3).join(', ')}${short.length > 3 ? ` and ${short.length - 3} more` : ''}`;
  return (
    <Box data-tonight={can} sx={{ fontSize: 13, color: can ? ink.good : ink.warning }}>
      {says}
    </Box>
  );
}

/** How what is wanted of a patch stands. */
function WantedLine({ count, met }: { readonly count: number; readonly met: number }) {
  if (count === 0) return null;
  const all = met === count;
  return (
    <Box data-wanted={all} sx={{ fontSize: 13, color: all ? ink.good : ink.error }}>
      {all ? 'All targets met' : `Targets: ${met} of ${count} met`}
    </Box>
  );
}
