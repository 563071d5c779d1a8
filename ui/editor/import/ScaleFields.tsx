'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo, useState } from 'react';
import { showNumber } from '@/core';
import type { Patch } from '@/core';
import { quantizerScale } from '@/core/formats/scala';
import type { KeyboardMap, QuantizerScale, ScalaScale } from '@/core/formats/scala';
import { SelectField } from '@/ui/parts/SelectField';
import { fonts, ink } from '@/ui/theme/tokens';
import { hasScale } from './imports';

interface Props {
  readonly name: string;
  readonly scale: ScalaScale;
  readonly map: KeyboardMap | null;
  readonly patch: Patch;
  /** @param at the quantizer that gets it; empty for a new one. */
  readonly onUse: (at: string, scale: QuantizerScale) => void;
}

const ROOTS = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];

/** What a scale file comes to, before it is in a quantizer. */
export function ScaleFields({ scale, map, patch, onUse }: Props) {
  const there = patch.modules.filter(hasScale);
  const [at, setAt] = useState(there[0]?.id ?? '');
  const made = useMemo(() => quantizerScale(scale, map), [scale, map]);
  if (!made.ok) return <Alert severity="error">{`${made.errors} Nothing was changed.`}</Alert>;
  const { value } = made;
  return (
    <>
      <Box sx={{ mb: 1 }}>
        {`${scale.name || 'A scale'}: ${value.scale.length} notes an octave, on ${ROOTS[value.root] ?? ''}.`}
        {map === null
          ? ' A keyboard mapping (.kbm) may follow.'
          : ` ${Math.abs(value.tuneCents) < 0.005 ? 'Its tuning is standard.' : `Tune the oscillator by ${showNumber(value.tuneCents, 1)} ct for ${showNumber(map.hz, 2)} Hz on key ${map.reference}.`}`}
      </Box>
      <Notes scale={value.scale} />
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mt: 1.5 }}>
        <SelectField
          label="Quantizer"
          value={at}
          options={[...there.map((m) => [m.id, m.label ?? 'Quantizer'] as const), ['', 'New quantizer']]}
          onChange={setAt}
          sx={{ minWidth: 180 }}
        />
        <Button variant="contained" onClick={() => onUse(at, value)}>
          Apply
        </Button>
      </Box>
    </>
  );
}

const HEIGHT = 34;

/** Notes over an octave: as a ruler beside the twelve even ones, and as figures. */
function Notes({ scale }: { readonly scale: readonly number[] }) {
  const place = (semitones: number): number => 4 + (semitones / 12) * 492;
  return (
    <>
      <Box
        component="svg"
        viewBox={`0 0 500 ${HEIGHT}`}
        role="img"
        aria-label={`${scale.length} notes over an octave, above twelve even ones`}
        sx={{ width: '100%', display: 'block' }}
      >
        <path d={`M4,17H496`} stroke={ink.line} />
        {Array.from({ length: 13 }, (_, i) => (
          <path key={i} d={`M${place(i)},17v8`} stroke={ink.softInk} />
        ))}
        {[...scale, 12].map((s) => (
          <path key={s} d={`M${place(s)},17v-14`} stroke={ink.wanted} strokeWidth="2" />
        ))}
      </Box>
      <Box sx={{ maxHeight: 240, overflow: 'auto' }} tabIndex={0} role="group" aria-label="Notes">
        <Table size="small" stickyHeader aria-label="Notes of the scale">
          <TableHead>
            <TableRow>
              <TableCell>note</TableCell>
              <TableCell align="right">cents</TableCell>
              <TableCell align="right">off the nearest semitone</TableCell>
            </TableRow>
          </TableHead>
          <TableBody sx={{ '& td': { fontFamily: fonts.numbers } }}>
            {scale.map((s, i) => (
              <TableRow key={s}>
                <TableCell>{i + 1}</TableCell>
                <TableCell align="right">{showNumber(100 * s, 1)}</TableCell>
                <TableCell align="right">{`${showNumber(100 * (s - Math.round(s)), 1)} ct`}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </>
  );
}
