'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import type { KeyboardEvent } from 'react';
import { showNumber } from '@/core';
import { CloseIcon } from '@/ui/parts/icons';
import { fonts, ink } from '@/ui/theme/tokens';
import { controlName } from './midi';
import { keyedShare, shareOf, valueAt } from './played';
import type { Played } from './played';

interface Props {
  readonly played: Played;
  readonly learning: boolean;
  /** The controller that moves it. */
  readonly number: number | undefined;
  /** The controller has not come to where it stands yet. */
  readonly waits: boolean;
  readonly onTurn: (value: number) => void;
  readonly onLearn: () => void;
  /** No controller moves it any more. */
  readonly onForget: () => void;
  readonly onRemove: (() => void) | null;
}

/** A knob as a fader, by the knob's own taper; and the controller that moves it. */
export function Fader({ played, learning, number, waits, onTurn, onLearn, onForget, onRemove }: Props) {
  const { at, label, value, unit } = played;
  const share = shareOf(played);
  const shown = `${showNumber(value, 2)}${unit ? `\u00a0${unit}` : ''}`;
  const key = (e: KeyboardEvent): void => {
    const next = keyedShare(share, e.key, e.shiftKey);
    if (next === null || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    onTurn(valueAt(played, next));
  };
  return (
    <Box sx={{ width: 190 }} data-fader={at}>
      <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 13, minHeight: 28 }}>
        <Box
          sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
          title={label}
        >
          {label}
        </Box>
        {onRemove && (
          <IconButton size="small" aria-label={`Remove ${label}`} onClick={onRemove}>
            <CloseIcon sx={{ fontSize: 16 }} />
          </IconButton>
        )}
      </Box>
      <Box onKeyDownCapture={key}>
        <Slider
          aria-label={`Play ${label}`}
          size="small"
          min={0}
          max={1}
          step={0.001}
          value={share}
          getAriaValueText={() => shown}
          onChange={(_, v) => onTurn(valueAt(played, v as number))}
          sx={{ touchAction: 'none' }}
        />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1, fontFamily: fonts.numbers, fontSize: 13, whiteSpace: 'nowrap' }}>{shown}</Box>
        <Button aria-pressed={learning} onClick={onLearn} sx={{ whiteSpace: 'nowrap', flexShrink: 0 }}>
          {learning ? 'Waiting…' : number === undefined ? 'MIDI learn' : controlName(number)}
        </Button>
      </Box>
      {learning && number !== undefined && (
        <Button onClick={onForget} sx={{ width: 1 }}>{`Unassign ${controlName(number)}`}</Button>
      )}
      {waits && (
        <Box role="status" sx={{ fontSize: 13, color: ink.softInk }}>{`Pick up at ${showNumber(100 * share, 0)}%`}</Box>
      )}
    </Box>
  );
}
