'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { CURVES } from '@/core';
import type { Curve, Macro, MacroRow } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { DeleteIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import type { Offered } from './offered';

const WORDS: Readonly<Record<Curve, string>> = { straight: 'Linear', slow: 'Slow start', switch: 'Switch' };
const ONTO = [
  ['', 'mix or replace?'],
  ['mix', 'mix both'],
  ['replace', 'replace it'],
] as const;
const MOST = 1e6;

interface Props {
  readonly row: MacroRow;
  readonly offered: Offered | undefined;
  readonly span: Macro['span'];
  readonly fault: string | null;
  /** What is patched there already, by name. */
  readonly gets: string | null;
  /** Null takes it out. */
  readonly onRow: (row: MacroRow | null) => void;
}

/** On a phone a row is a block: its name, then its fields in two columns, each under what it is. */
const rowStyle = {
  verticalAlign: 'top',
  display: { xs: 'grid', md: 'table-row' },
  gridTemplateColumns: '1fr 1fr',
  borderBottom: { xs: `1px solid ${ink.line}`, md: 'none' },
  py: { xs: 1, md: 0 },
  '& > .MuiTableCell-root': {
    borderBottom: { xs: 'none', md: `1px solid ${ink.line}` },
    pl: { xs: 0.5, md: 0 },
    pr: { xs: 0.5, md: 2 },
  },
} as const;
const nameStyle = {
  gridColumn: '1 / -1',
  gridRow: 1,
  fontWeight: { xs: 600, md: 400 },
  pr: { xs: 6, md: 2 },
  // In one line with its fields.
  lineHeight: { md: '32px' },
} as const;
const outStyle = { gridColumn: 2, gridRow: 1, justifySelf: 'end' } as const;
const cellStyle = (name: string) => ({
  '&::before': {
    content: `"${name}"`,
    display: { xs: 'block', md: 'none' },
    color: ink.softInk,
    fontSize: 13,
  },
});

/** One end of a fader, with its figures in its own unit. */
export function EndRow({ row, offered, span, fault, gets, onRow }: Props) {
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
    <TableRow data-macro-row={row.end} sx={rowStyle}>
      <TableCell component="th" scope="row" sx={nameStyle}>
        {label}
        {gets !== null && (
          <Box sx={{ fontWeight: 400, fontSize: 13, color: ink.softInk, display: 'flex', flexWrap: 'wrap', gap: 1 }}>
            <span>{gets} is patched here:</span>
            <SelectField
              label={`${label}, already connected to ${gets}`}
              value={row.onto ?? ''}
              options={ONTO}
              onChange={(onto) => onto !== '' && onRow({ ...row, onto })}
            />
          </Box>
        )}
        {fault && (
          <Box role="alert" sx={{ color: ink.error, fontSize: 13, fontWeight: 400 }}>
            {fault}
          </Box>
        )}
      </TableCell>
      <TableCell sx={cellStyle('from')}>{figure('from')}</TableCell>
      <TableCell sx={cellStyle('to')}>{figure('to')}</TableCell>
      <TableCell sx={cellStyle('how')}>
        <SelectField
          label={`${label}, curve`}
          value={row.curve}
          options={CURVES.map((c) => [c, WORDS[c]] as const)}
          onChange={(curve) => onRow({ ...row, curve })}
        />
      </TableCell>
      <TableCell sx={cellStyle('begins at')}>
        <QuantityField
          label={`${label}, starts at`}
          unit="V"
          value={row.begins}
          min={span[0]}
          max={span[1]}
          width={96}
          onChange={(begins) => onRow({ ...row, begins })}
        />
      </TableCell>
      <TableCell sx={outStyle}>
        <IconButton aria-label={`Remove ${label}`} onClick={() => onRow(null)}>
          <DeleteIcon />
        </IconButton>
      </TableCell>
    </TableRow>
  );
}
