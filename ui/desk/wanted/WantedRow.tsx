'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { memo } from 'react';
import { countsOctaves, figureLimits, quantityFault, readQuantity, targetText, wantOf, WANTS } from '@/core';
import type { ModuleDoc, Target, TargetStanding } from '@/core';
import { DeleteIcon } from '@/ui/parts/icons';
import { readSteps } from '@/ui/parts/steps';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';
import { standing } from './words';

interface Props {
  readonly target: Target;
  readonly place: string;
  readonly unit: string;
  /** What it hangs on beside, by name: the other end, the sequencer. */
  readonly other: string;
  readonly missed: TargetStanding | null;
  readonly edit: EditDesk;
  /** For the names of places. */
  readonly modules: readonly ModuleDoc[];
}

/** The figures of a target that can be typed, and what each is called. */
const FIELDS: Readonly<Record<string, string>> = {
  low: 'Min',
  high: 'Max',
  span: 'Width',
  centre: 'Centre',
  value: 'Average',
  percent: '%',
  db: 'dB',
  seconds: 's',
  least: 'Min p–p (V)',
  steps: 'Steps',
};

type Figures = Readonly<Record<string, unknown>>;

/** A figure as it is typed: steps count from 1, what is free is empty. */
function typedOf(target: Target, name: string): string {
  const value = (target as unknown as Figures)[name];
  if (Array.isArray(value)) return value.map((s) => Number(s) + 1).join(', ');
  return value === null || value === undefined ? '' : String(value);
}

type Read = { readonly value: unknown } | { readonly fault: string };

function read(target: Target, name: string, text: string, unit: string): Read {
  const plain = text.trim();
  if (name === 'steps') {
    const steps = readSteps(plain);
    return steps === null ? { fault: 'Enter step numbers from 1 to 64, for example 1, 3.' } : { value: steps };
  }
  const field = figureLimits(target, name);
  if (!field) return { fault: 'Choose this from the list.' };
  if (plain === '' && field.none) return { value: null };
  if (plain === 'silent' && field.silent) return { value: 'silent' };
  const limits = [field.min, field.max] as const;
  const asked = quantityFault(plain, unit, limits);
  if (asked !== null) return { fault: asked };
  const figure = readQuantity(plain, unit, limits);
  if (figure === null || figure < field.min || figure > field.max)
    return {
      fault: `Enter a value${unit ? ` in ${unit}` : ''}${field.none ? ', or leave it empty for no limit' : ''}.`,
    };
  return { value: figure };
}

/** One thing that is wanted: where, what, whether it is met, and its figures. */
export const WantedRow = memo(function WantedRow({ target, place, unit, other, missed, edit, modules }: Props) {
  const key = { at: target.at, ...(target.id !== undefined && { id: target.id }) };
  const names = Object.keys(WANTS[wantOf(target)]).filter((name) => name in FIELDS);
  const put = (name: string, text: string): string | null => {
    const found = read(target, name, text, 'quantity' in target ? unit : '');
    if ('fault' in found) return found.fault;
    const next = { ...target, [name]: found.value } as Target;
    edit(`Set target at ${place} to ${targetText(modules, next)}`, [{ do: 'target', ...key, target: next }]);
    return null;
  };
  return (
    <Box
      data-target={`${target.at}${target.id ? ` ${target.id}` : ''}`}
      sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <Box sx={{ flex: 1, fontWeight: 700, minWidth: 0, overflowWrap: 'anywhere' }}>{place}</Box>
        {missed && (
          <Box component="span" data-met={missed.met} sx={{ color: missed.met ? ink.good : ink.error, fontSize: 13 }}>
            {standing(missed)}
          </Box>
        )}
        <IconButton
          aria-label={`Remove this target for ${place}`}
          onClick={() => edit(`Remove target at ${place}`, [{ do: 'target', ...key, target: null }])}
        >
          <DeleteIcon sx={{ fontSize: 16 }} />
        </IconButton>
      </Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{sentence(target, unit, other)}</Box>
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap', mt: 0.5 }}>
        {names.map((name) => (
          <Figure
            key={name}
            label={`Target ${FIELDS[name]} at ${place}`}
            placeholder={FIELDS[name] ?? ''}
            value={typedOf(target, name)}
            onPut={(text) => put(name, text)}
          />
        ))}
      </Box>
    </Box>
  );
});

/** What is wanted, by what it means. */
function sentence(t: Target, unit: string, other: string): string {
  const [wide, about] = ['span' in t ? t.span : 0, 'centre' in t ? t.centre : null];
  const octaves = 'quantity' in t && countsOctaves(t.quantity);
  if (t.want === 'within') return `Limits in ${unit}`;
  if (t.want === 'span')
    return `${wide} ${octaves ? 'octaves' : unit} wide${about === null ? '' : `, centre in ${unit}`}`;
  if (t.want === 'mean') return `Average in ${unit}`;
  if (t.want === undefined || t.want === 'range') return `Range in ${unit}. Leave a box empty for no limit.`;
  if (t.want === 'opposite') return `Moves opposite to ${other}`;
  if (t.want === 'same') return `Moves with ${other}`;
  if (t.want === 'steps') return `High on these steps of ${other}, low on the rest`;
  return targetText([], t);
}

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
      <TextInput {...field} fault={fault} label={label} figures placeholder={placeholder} sx={{ width: 88 }} />
    </Box>
  );
}
