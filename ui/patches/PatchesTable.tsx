'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import Checkbox from '@mui/material/Checkbox';
import { startTransition, useEffect, useState } from 'react';
import type { ListedPatch } from '@/wire/patches';
import type { Tonight } from '@/wire/racks';
import type { Column, Order } from './order';
import { PatchRow } from './PatchRow';
import { useRowKeys } from './useRowKeys';
import { cellStyle, headStyle } from './tableStyle';

const HEADS: readonly (readonly [Column, string])[] = [
  ['name', 'Name'],
  ['arrives', 'Arrives'],
  ['findings', 'Targets and issues'],
  ['updatedAt', 'Modified'],
];

interface Props {
  readonly patches: readonly ListedPatch[];
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  readonly chosen: ReadonlySet<string>;
  readonly tonight: ReadonlyMap<string, Tonight>;
  readonly onChoose: (id: string) => void;
  readonly onChooseAll: (all: boolean) => void;
  readonly onChanged: () => Promise<void>;
  readonly onRemove: (patch: ListedPatch) => void;
}

/** How many rows are drawn at once; the others follow once the page responds. */
const AT_ONCE = 60;

/** The patches as a table that is sorted by its heads. */
export function PatchesTable(props: Props) {
  const { patches, order, onOrder, chosen, tonight, onChoose, onChooseAll, onChanged, onRemove } = props;
  const [most, setMost] = useState(AT_ONCE);
  useEffect(() => startTransition(() => setMost(Infinity)), []);
  const all = patches.length > 0 && patches.every((p) => chosen.has(p.id));
  const sortBy = (by: Column): void => onOrder({ by, down: order.by === by ? !order.down : by !== 'name' });
  const keys = useRowKeys(patches.map((p) => p.id));
  return (
    <Table component="div" aria-label="Patches" onKeyDown={keys.onKeyDown} onFocus={keys.onFocus}>
      <TableHead component="div">
        <TableRow component="div" sx={headStyle}>
          <TableCell component="div" role="columnheader" sx={cellStyle.box}>
            <Checkbox
              checked={all}
              indeterminate={!all && patches.some((p) => chosen.has(p.id))}
              onChange={() => onChooseAll(!all)}
              slotProps={{ input: { 'aria-label': 'Select all patches' } }}
            />
          </TableCell>
          <TableCell component="div" role="columnheader" sx={cellStyle.picture} />
          {HEADS.map(([by, name]) => (
            <TableCell
              key={by}
              component="div"
              role="columnheader"
              sx={{ border: 0, p: 0 }}
              sortDirection={order.by === by ? (order.down ? 'desc' : 'asc') : false}
            >
              <TableSortLabel
                active={order.by === by}
                direction={order.by === by && order.down ? 'desc' : 'asc'}
                onClick={() => sortBy(by)}
              >
                {name}
              </TableSortLabel>
            </TableCell>
          ))}
          <TableCell component="div" role="columnheader" sx={cellStyle.menu} />
        </TableRow>
      </TableHead>
      <TableBody component="div" id="patches" tabIndex={-1}>
        {patches.slice(0, most).map((patch) => (
          <PatchRow
            key={patch.id}
            patch={patch}
            chosen={chosen.has(patch.id)}
            reached={keys.reached === patch.id}
            tonight={tonight.get(patch.id) ?? null}
            onChoose={onChoose}
            onChanged={onChanged}
            onRemove={onRemove}
          />
        ))}
      </TableBody>
    </Table>
  );
}
