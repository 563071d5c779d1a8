'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { memo, useMemo } from 'react';
import { SelectField } from '@/ui/parts/SelectField';
import { AddIcon, PinIcon, PinnedIcon } from '@/ui/parts/icons';
import { fonts, ink } from '@/ui/theme/tokens';
import type { InputLine, Option, OutputLine } from './sockets';

const nameCell = { fontSize: 12, lineHeight: 1.25, overflowWrap: 'anywhere', pr: 0.5 } as const;
const feedsCell = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;
const voltsCell = {
  fontFamily: fonts.numbers,
  fontSize: 11.5,
  textAlign: 'right',
  whiteSpace: 'nowrap',
  pr: 0.5,
} as const;
const pinCell = { pr: 0, textAlign: 'right' } as const;

interface InputProps extends InputLine {
  readonly outputs: readonly Option[];
  readonly pinned: boolean;
  readonly onPin: (socket: string) => void;
  readonly onPlug: (socket: string, from: string | null) => void;
  /** Chooses what drives it, looking first. */
  readonly onFeed: (socket: string) => void;
}

export const InputRow = memo(function InputRow(props: InputProps) {
  const { socket, label, from, empty, volts, late, outputs, pinned, onPin, onPlug, onFeed } = props;
  const options = useMemo(
    () => [['', empty] as const, ...outputs.map((o) => [o.socket, o.name] as const)],
    [empty, outputs],
  );
  return (
    <TableRow data-input={socket}>
      <TableCell component="th" scope="row" title={label} sx={nameCell}>
        {label}
        {late && (
          <Box component="span" title="Feedback: one-sample delay" sx={{ color: ink.softInk }}>
            {' ↺'}
          </Box>
        )}
      </TableCell>
      <TableCell>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <SelectField
            label={`${label} gets`}
            value={from}
            options={options}
            onChange={(next) => onPlug(socket, next || null)}
            sx={{ flex: 1, minWidth: 0 }}
          />
          {from === '' && (
            <IconButton aria-label={`Choose a source for ${label}`} onClick={() => onFeed(socket)} sx={{ p: 0.5 }}>
              <AddIcon sx={{ fontSize: 16 }} />
            </IconButton>
          )}
        </Box>
      </TableCell>
      <TableCell sx={voltsCell}>{volts}</TableCell>
      <TableCell sx={pinCell}>
        <PinButton socket={socket} pinned={pinned} onPin={onPin} />
      </TableCell>
    </TableRow>
  );
});

interface OutputProps extends OutputLine {
  readonly pinned: boolean;
  readonly onPin: (socket: string) => void;
}

export const OutputRow = memo(function OutputRow({ socket, label, volts, feeds, settled, pinned, onPin }: OutputProps) {
  return (
    <TableRow>
      <TableCell component="th" scope="row" title={label} sx={nameCell}>
        {label}
      </TableCell>
      <TableCell title={feeds} sx={{ ...feedsCell, color: ink.softInk }}>
        {feeds && `to ${feeds}`}
        {settled && <Box sx={{ fontSize: 11.5, whiteSpace: 'normal' }}>{settled}</Box>}
      </TableCell>
      <TableCell sx={voltsCell} data-output={socket}>
        {volts}
      </TableCell>
      <TableCell sx={pinCell}>
        <PinButton socket={socket} pinned={pinned} onPin={onPin} />
      </TableCell>
    </TableRow>
  );
});

interface PinProps {
  readonly socket: string;
  readonly pinned: boolean;
  readonly onPin: (socket: string) => void;
}

const PinButton = memo(function PinButton({ socket, pinned, onPin }: PinProps) {
  return (
    <IconButton
      aria-label={pinned ? `Unpin ${socket} from the scope` : `Pin ${socket} to the scope`}
      aria-pressed={pinned}
      onClick={() => onPin(socket)}
      sx={{ p: 0.5, color: pinned ? ink.wanted : ink.softInk }}
    >
      {pinned ? <PinnedIcon sx={{ fontSize: 16 }} /> : <PinIcon sx={{ fontSize: 16 }} />}
    </IconButton>
  );
});
