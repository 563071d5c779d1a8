'use client';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { CURVES } from '@/core';
import type { Curve, Macro, MacroRow } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import type { Offered } from './offered';

const WORDS: Readonly<Record<Curve, string>> = { straight: 'evenly', slow: 'slowly at first', switch: 'switches' };
const MOST = 1e6;

interface Props {
  readonly row: MacroRow;
  readonly offered: Offered | undefined;
  readonly span: Macro['span'];
  readonly fault: string | null;
  /** Null takes it out. */
  readonly onRow: (row: MacroRow | null) => void;
}

/** One end of a fader, with its figures in its own unit. */
export function EndRow({ row, offered, span, fault, onRow }: Props) {
  const label = offered?.label ?? row.end;
  const unit = offered?.unit ?? '';
  const figure = (name: 'from' | 'to') => (
    <QuantityField
      label={`${label}, ${name}`}
      unit={unit}
      value={row[name]}
      min={-MOST}
      max={MOST}
      width={120}
      onChange={(v) => onRow({ ...row, [name]: v })}
    />
  );
  return (
    <TableRow data-macro-row={row.end} sx={{ verticalAlign: 'top' }}>
      <TableCell component="th" scope="row">
        {label}
        {fault && (
          <Box role="alert" sx={{ color: ink.error, fontSize: 13, fontWeight: 400 }}>
            {fault}
          </Box>
        )}
      </TableCell>
      <TableCell>{figure('from')}</TableCell>
      <TableCell>{figure('to')}</TableCell>
      <TableCell>
        <SelectField
          label={`${label}, how`}
          value={row.curve}
          options={CURVES.map((c) => [c, WORDS[c]] as const)}
          onChange={(curve) => onRow({ ...row, curve })}
        />
      </TableCell>
      <TableCell>
        <QuantityField
          label={`${label}, begins at`}
          unit="V"
          value={row.begins}
          min={span[0]}
          max={span[1]}
          width={96}
          onChange={(begins) => onRow({ ...row, begins })}
        />
      </TableCell>
      <TableCell>
        <IconButton aria-label={`Take ${label} out`} onClick={() => onRow(null)}>
          <DeleteOutlineIcon />
        </IconButton>
      </TableCell>
    </TableRow>
  );
}
