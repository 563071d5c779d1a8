'use client';
import { dateTime } from '@/ui/parts/dates';
import { counted } from '@/ui/parts/counted';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { memo } from 'react';
import type { Ref } from 'react';
import { showRange } from '@/core';
import { SafeLink } from '@/ui/parts/SafeLink';
import { useHydrated } from '@/ui/parts/useHydrated';
import { fonts, ink } from '@/ui/theme/tokens';
import type { ListedPatch, PatchListing, RackFit } from '@/wire/patches';
import { PatchMenu } from './PatchMenu';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { StripPicture } from './StripPicture';
import { cellStyle, placed, rowStyle } from './tableStyle';
import { WorstFinding } from './WorstFinding';

interface Props {
  readonly patch: PatchListing;
  /** Which row it is, and where it stands, pixels from the first; null where the rows follow each other. */
  readonly index: number;
  readonly top: number | null;
  /** Measures it. */
  readonly ref: Ref<HTMLDivElement>;
  readonly chosen: boolean;
  /** Its controls are the stops of the Tab key; of the other rows they are reached by the arrows. */
  readonly reached: boolean;
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

/** One patch: its path, its name, what arrives, whether targets are met, its worst issue, and when it was changed. */
export const PatchRow = memo(function PatchRow({
  patch,
  index,
  top,
  ref,
  chosen,
  reached,
  onChoose,
  onChanged,
  onRemove,
}: Props) {
  const stop = reached ? 0 : -1;
  const hydrated = useHydrated();
  return (
    <TableRow
      component="div"
      ref={ref}
      data-patch={patch.id}
      data-index={index}
      data-chosen={chosen}
      aria-rowindex={index + 2}
      sx={rowStyle}
      {...placed(top)}
    >
      <TableCell component="div" role="cell" sx={cellStyle.box}>
        <Checkbox
          checked={chosen}
          onChange={() => onChoose(patch.id)}
          slotProps={{ input: { 'aria-label': `Select ${patch.name}`, tabIndex: stop } }}
          sx={{ position: 'relative', zIndex: 1 }}
        />
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.picture}>
        <StripPicture strip={patch.summary?.strip ?? []} />
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.name}>
        <Box component={SafeLink} href={`/patches/${patch.id}`} tabIndex={stop} sx={linkStyle}>
          {patch.name}
        </Box>
        <Box sx={{ fontSize: 12, color: ink.softInk }}>
          {patch.fit ? <RackLine {...patch.fit} /> : null}
          {patch.tags.length > 0 && <Box>{patch.tags.join(', ')}</Box>}
        </Box>
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.arrives}>
        {arriving(patch).map((e) => (
          <Box key={e.at}>
            <Box sx={{ fontSize: 12, color: ink.softInk }}>{e.label}</Box>
            <Box sx={{ fontFamily: fonts.numbers, lineHeight: 1.3 }}>{showRange(e.low, e.high, e.unit)}</Box>
          </Box>
        ))}
        <Others count={(patch.summary?.ends.length ?? 0) - SHOWN} />
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.findings}>
        {patch.summary && <TargetLine {...patch.summary.wanted} />}
        <WorstFinding {...patch} stop={stop} />
      </TableCell>
      <TableCell component="div" role="cell" sx={{ ...cellStyle.changed, color: ink.softInk }}>
        {hydrated ? dateTime(patch.updatedAt) : null}
      </TableCell>
      <TableCell component="div" role="cell" sx={cellStyle.menu}>
        <PatchMenu patch={patch} stop={stop} onChanged={onChanged} onRemove={() => onRemove(patch)} />
      </TableCell>
    </TableRow>
  );
});

/** How many destinations a row shows. */
const SHOWN = 1;

/** The destinations that a row shows: the one that the patch opens with first. */
function arriving({ summary }: ListedPatch): NonNullable<ListedPatch['summary']>['ends'] {
  const { ends = [], shown } = summary ?? {};
  return [...ends].sort((a, b) => Number(b.at === shown) - Number(a.at === shown)).slice(0, SHOWN);
}

function Others({ count }: { readonly count: number }) {
  if (count <= 0) return null;
  return <Box sx={{ fontSize: 12, color: ink.softInk }}>{`and ${counted(count, 'other destination')}`}</Box>;
}

/** Whether it can be patched with the chosen rack. */
function RackLine({ short, standIns }: RackFit) {
  const { name: rack } = useChosenRack();
  const can = short.length === 0;
  const says = can
    ? `Fits ${rack}${standIns > 0 ? ` (${counted(standIns, 'substitute')})` : ''}`
    : `Missing from ${rack}: ${short
        .slice(0, 3)
        .map((m) => m.name)
        .join(', ')}${short.length > 3 ? ` and ${short.length - 3} more` : ''}`;
  return (
    <Box data-tonight={can} sx={{ fontSize: 12, color: can ? ink.softInk : ink.warning }}>
      {says}
    </Box>
  );
}

/** How what is wanted of a patch stands. */
function TargetLine({ count, met }: { readonly count: number; readonly met: number }) {
  if (count === 0) return null;
  const all = met === count;
  return (
    <Box data-wanted={all} sx={{ fontSize: 13, color: all ? ink.good : ink.error }}>
      {all ? 'All targets met' : `Targets: ${met} of ${count} met`}
    </Box>
  );
}
