'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { memo } from 'react';
import { guaranteedApart, targetText, WANTS, wantOf } from '@/core';
import type { ModuleDoc, Reading, Target, TargetStanding } from '@/core';
import { DeleteIcon } from '@/ui/parts/icons';
import { later } from '@/ui/parts/later';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import type { EditDesk } from '@/ui/session/edit';
import { quantityLabel } from '@/ui/parts/readingText';
import { ink } from '@/ui/theme/tokens';
import { changedBy, FIGURES, titleOf, typedOf } from './figures';
import { rowKey, standing } from './words';

interface Props {
  readonly target: Target;
  /** The place and the unit of its figures, in words. */
  readonly place: string;
  readonly unit: string;
  /** The other place that it is about, in words. */
  readonly other: string;
  readonly missed: TargetStanding | null;
  /** What arrives there; null before it is known. */
  readonly reading: Reading | null;
  readonly edit: EditDesk;
  /** For the names of places. */
  readonly modules: readonly ModuleDoc[];
}

const BasisChoice = later(() => import('./BasisChoice').then((m) => m.BasisChoice));

const isBased = (t: Target): t is Extract<Target, { basis?: unknown }> => 'basis' in WANTS[wantOf(t)];

/** One target: what it asks for, whether it is met, and its figures, typed in the destination's own unit. */
export const TargetRow = memo(function TargetRow(props: Props) {
  const { target, place, unit, other, missed, reading, edit, modules } = props;
  const key = { at: target.at, ...(target.id !== undefined && { id: target.id }) };
  const names = Object.keys(WANTS[wantOf(target)]).filter((name) => name in FIGURES);
  const put = (name: string, text: string): string | null => {
    const found = changedBy(target, name, text, 'quantity' in target ? unit : '');
    if ('fault' in found) return found.fault;
    edit(`Set target at ${place} to ${targetText(modules, found.target)}`, [
      { do: 'target', ...key, target: found.target },
    ]);
    return null;
  };
  const range = names.length === 2 && names[0] === 'low';
  return (
    <Box data-target={rowKey(target)} sx={{ pb: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <Box sx={{ flex: 1, minWidth: 0, fontSize: 13, color: ink.softInk }}>
          {reading?.further && `${quantityLabel(reading.quantity)}: `}
          {titleOf(target, unit, other)}
        </Box>
        {missed && (
          <Box component="span" data-met={missed.met} sx={{ color: missed.met ? ink.good : ink.error, fontSize: 13 }}>
            {standing(missed, reading)}
          </Box>
        )}
        <IconButton
          aria-label={`Remove this target for ${place}`}
          onClick={() => edit(`Remove target at ${place}`, [{ do: 'target', ...key, target: null }])}
        >
          <DeleteIcon sx={{ fontSize: 16 }} />
        </IconButton>
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap', alignItems: 'center' }}>
        {names.map((name, i) => (
          <Box key={name} sx={{ display: 'contents' }}>
            {range && i === 1 && <span>to</span>}
            <Figure
              label={`Target ${FIGURES[name]} at ${place}`}
              placeholder={FIGURES[name] ?? ''}
              value={typedOf(target, name, unit)}
              onPut={(text) => put(name, text)}
            />
          </Box>
        ))}
        {isBased(target) && reading && guaranteedApart(reading) && <BasisChoice {...{ target, place, edit }} />}
      </Box>
    </Box>
  );
});

interface FigureProps {
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onPut: (text: string) => string | null;
}

/** A figure that is put when it is left, or with Enter. */
function Figure({ label, placeholder, value, onPut }: FigureProps) {
  const { fault, field } = useTyped(value, onPut);
  return (
    <Box sx={{ flexBasis: fault === null ? 'auto' : '100%' }}>
      <TextInput {...field} fault={fault} label={label} figures placeholder={placeholder} sx={{ width: 104 }} />
    </Box>
  );
}
