'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { kindTitle } from '@/core';
import type { Channel } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Listed } from './edits';

interface Props {
  readonly modules: readonly Listed[];
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}

const titleOf = (c: Channel): string => c.modes.map((m) => kindTitle(m.kind)).join(' / ');

/** The same kinds once, with how many. */
function channelsText(channels: readonly Channel[]): string {
  const counts = new Map<string, number>();
  for (const c of channels) counts.set(titleOf(c), (counts.get(titleOf(c)) ?? 0) + 1);
  return [...counts].map(([title, n]) => (n > 1 ? `${n} × ${title}` : title)).join(', ');
}

/** On a phone there is no room for it. */
const place = { whiteSpace: 'nowrap', display: { xs: 'none', md: 'table-cell' } } as const;

/** Every module with its place, its channels, and who plays there. */
export function ModuleTable({ modules, chosen, onChoose }: Props) {
  if (modules.length === 0) return null;
  return (
    <Table aria-label="Modules" size="small">
      <TableHead>
        <TableRow>
          <TableCell>Module</TableCell>
          <TableCell sx={place}>Position</TableCell>
          <TableCell>Channels</TableCell>
          <TableCell sx={{ whiteSpace: 'nowrap' }}>Used by</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {modules.map(({ module: m, uses }) => {
          const used = m.channels.flatMap((c) =>
            (uses.get(`${m.id}/${c.id}`) ?? []).map((by) => `${c.label ?? c.id}: ${by}`),
          );
          return (
            <TableRow key={m.id} data-module={m.id} selected={m.id === chosen}>
              <TableCell>
                <Button
                  onClick={() => onChoose(m.id)}
                  aria-pressed={m.id === chosen}
                  sx={{ textAlign: 'left', overflowWrap: 'normal', wordBreak: 'normal', maxWidth: 'none' }}
                >
                  {m.name}
                </Button>
              </TableCell>
              <TableCell sx={place}>
                <Box component="span" sx={{ fontFamily: fonts.numbers }}>
                  {`${m.row ?? 1}.${m.at ?? 0}`}
                </Box>
              </TableCell>
              <TableCell>{channelsText(m.channels)}</TableCell>
              <TableCell sx={{ overflowWrap: 'normal', color: used.length > 0 ? ink.ink : ink.softInk }}>
                {used.length > 0 ? used.join(', ') : 'free'}
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}
