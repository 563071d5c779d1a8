import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import { channelTitle } from '@/core';
import type { Calibration, LearnedTrait, Rack } from '@/core';
import { counted } from '@/ui/parts/counted';
import { fonts } from '@/ui/theme/tokens';
import { errorText, traitName, traitText } from './traitNames';

interface Props {
  readonly found: Calibration;
  readonly rack: Rack;
  readonly onTake: (told: readonly LearnedTrait[]) => void;
}

const keyOf = ({ rack, parameter }: LearnedTrait): string => `${rack} ${parameter}`;

/** Joint ones as what a person may take them for: an offset, or a gain. */
const jointTraits = ({ joint }: Calibration): LearnedTrait[] =>
  joint.map(({ rack, value, error, unit }) => ({
    rack,
    parameter: unit === 'V' ? 'offsetVolts' : 'gain',
    value,
    error,
    readings: 0,
    ideal: unit === 'V' ? 0 : 1,
  }));

const wide = { display: { xs: 'none', sm: 'table-cell' } } as const;

/** What was learned, channel by channel: each may be taken over, or left. */
export function Learned({ found, rack, onTake }: Props) {
  const joint = jointTraits(found);
  const all = [...found.channels, ...joint];
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set(joint.map(keyOf)));
  const taken = all.filter((t) => !left.has(keyOf(t)));
  const turn = (key: string): void =>
    setLeft((now) => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  if (all.length === 0) return <p>Not enough readings yet. Measure more outputs, with knobs at different positions.</p>;
  return (
    <Box data-learned={found.channels.length} sx={{ minWidth: 0, overflowX: 'auto' }}>
      <Table size="small" aria-label="Measured values">
        <TableHead>
          <TableRow>
            <TableCell padding="checkbox" />
            <TableCell>Channel</TableCell>
            <TableCell>Parameter</TableCell>
            <TableCell>Measured</TableCell>
            <TableCell>Std. error</TableCell>
            <TableCell sx={wide}>From</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {all.map((t) => (
            <TableRow key={`${keyOf(t)} ${joint.includes(t)}`} data-trait={keyOf(t)}>
              <TableCell padding="checkbox">
                <Checkbox
                  checked={!left.has(keyOf(t))}
                  onChange={() => turn(keyOf(t))}
                  slotProps={{ input: { 'aria-label': `Apply ${keyOf(t)}` } }}
                />
              </TableCell>
              <TableCell>{channelTitle(rack, t.rack)}</TableCell>
              <TableCell>{`${traitName(rack, t.rack, t.parameter)}${joint.includes(t) ? ' (joint)' : ''}`}</TableCell>
              <TableCell sx={{ fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
                {traitText(t.parameter, t.value)}
              </TableCell>
              <TableCell sx={{ fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
                {errorText(t.parameter, t.error)}
              </TableCell>
              <TableCell sx={wide}>{t.readings > 0 ? counted(t.readings, 'reading') : ''}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Button color="primary" disabled={taken.length === 0} onClick={() => onTake(taken)} sx={{ mt: 1.5 }}>
        {`Apply ${counted(taken.length, 'value')} to the rack`}
      </Button>
    </Box>
  );
}
