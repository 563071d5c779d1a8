'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { ReactNode } from 'react';
import {
  chainFor,
  completeParams,
  goalSources,
  idOf,
  kindNamed,
  partsOf,
  readQuantity,
  showNumber,
  showQuantity,
  showRange,
  showVolts,
} from '@/core';
import type { GoalChain, GoalSource, Patch, Wish } from '@/core';
import { endChoices } from '@/ui/parts/choices';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import { fonts, ink } from '@/ui/theme/tokens';

/** A goal is about what one voltage does between two limits. */
const choices = endChoices.filter((c) => windowOf(c.key) !== null);
const sourceNames: Readonly<Record<GoalSource, string>> = {
  lfo: 'a slow oscillator',
  envelope: 'an envelope on a clock',
  gesture: 'a hand on a fader',
  sequencer: 'a sequence on a clock',
};

function endOf(key: string) {
  const { id: kind, name: socket } = partsOf(key);
  return kindNamed(kind)?.ends?.find((e) => e.socket === socket);
}

function windowOf(key: string) {
  const kind = kindNamed(idOf(key));
  return (kind && endOf(key)?.window(completeParams(kind))) ?? null;
}

/** Two figures in the middle of what an end answers to, to begin with. */
function startOf(key: string): { low: string; high: string } {
  const end = endOf(key);
  const kind = kindNamed(idOf(key));
  const window = windowOf(key);
  if (!end || !kind || !window) return { low: '', high: '' };
  const params = completeParams(kind);
  const [from, to] = window.map((v) => Math.min(5, Math.max(-5, v))) as [number, number];
  const shown = (share: number): string =>
    showQuantity(end.value(params, from + share * (to - from)), end.unit(params));
  return { low: shown(0.3), high: shown(0.8) };
}

/** What a goal may be, in words. */
const ways = (unit: string): readonly (readonly [Wish['want'], string])[] => [
  ['range', 'from … to …'],
  ['within', 'stays inside …'],
  ['span', unit === 'Hz' || unit === 's' ? 'so many octaves about a middle' : 'so wide about a middle'],
];

const FIELDS = { range: { low: 'from', high: 'to' }, span: { low: 'wide', high: 'about' } } as const;

const wishOf = (want: Wish['want'], low: number, high: number): Wish =>
  want === 'span' ? { want, span: low, centre: high } : { want, low, high };

interface Props {
  readonly onDone: (patch: Patch) => void;
  readonly onClose: () => void;
}

/** What shall move, between which values, moved by what: and a chain that does it. */
export function GoalDialog({ onDone, onClose }: Props) {
  const [key, setKey] = useState(choices[0]?.key ?? '');
  const [by, setBy] = useState<GoalSource>('lfo');
  const [how, setHow] = useState<Wish['want']>('range');
  const [typed, setTyped] = useState(() => startOf(choices[0]?.key ?? ''));
  const { id: kind, name: socket } = partsOf(key);
  const end = endOf(key);
  const unit = end?.unit(completeParams(kindNamed(kind) as NonNullable<ReturnType<typeof kindNamed>>)) ?? '';
  const [low, high] = [readQuantity(typed.low, unit), readQuantity(typed.high, unit)];
  const fault =
    low === null || high === null
      ? `Type two figures${unit ? ` in ${unit}` : ''}.`
      : how !== 'span' && low >= high
        ? 'The first figure must lie below the second.'
        : how === 'span' && low <= 0
          ? 'It must be wider than nothing.'
          : null;
  const wish = fault === null && low !== null && high !== null ? wishOf(how, low, high) : null;
  const made = wish && chainFor({ kind, socket, wish, by });
  return (
    <Dialog open onClose={onClose} aria-labelledby="goal-title" maxWidth="sm" fullWidth>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (made) onDone(made.patch);
        }}
      >
        <DialogTitle id="goal-title">A patch from a goal</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
          <Row label="What shall move?" says={choices.find((c) => c.key === key)?.says ?? ''}>
            <SelectField
              label="What shall move?"
              value={key}
              options={choices.map((c) => [c.key, c.title] as const)}
              onChange={(next) => {
                setKey(next);
                setTyped(startOf(next));
              }}
            />
          </Row>
          <Row label="How?" says="">
            <SelectField label="How?" value={how} options={ways(unit)} onChange={setHow} />
          </Row>
          <Row label={how === 'span' ? 'How wide, about what?' : 'Between which values?'} says="">
            <Box role="group" aria-label="Between which values?" sx={{ display: 'flex', gap: 1 }}>
              {(['low', 'high'] as const).map((which) => (
                <TextInput
                  key={which}
                  label={FIELDS[how === 'span' ? 'span' : 'range'][which]}
                  figures
                  value={typed[which]}
                  onChange={(text) => setTyped({ ...typed, [which]: text })}
                  sx={{ width: 130 }}
                />
              ))}
            </Box>
          </Row>
          <Row label="Moved by what?" says="">
            <SelectField
              label="Moved by what?"
              value={by}
              options={goalSources.map((x) => [x, sourceNames[x]] as const)}
              onChange={setBy}
            />
          </Row>
          <Outcome by={by} fault={fault} made={made} />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" color="primary" disabled={!made}>
            Open on the desk
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}

function Row({ label, says, children }: { label: string; says: string; children: ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <Box component="span" sx={{ fontWeight: 700 }}>
        {label}
      </Box>
      {children}
      {says && (
        <Box component="span" sx={{ fontSize: 13, color: ink.softInk }}>
          {says}
        </Box>
      )}
    </Box>
  );
}

interface OutcomeProps {
  readonly by: GoalSource;
  readonly fault: string | null;
  readonly made: GoalChain | null;
}

/** What the chain would do, or why there is none. */
function Outcome({ by, fault, made }: OutcomeProps) {
  return (
    <Box
      role="status"
      data-goal={made?.reached ?? 'none'}
      sx={{ minHeight: 62, borderTop: `1px solid ${ink.line}`, pt: 1 }}
    >
      {fault !== null && <Box sx={{ color: ink.error }}>{fault}</Box>}
      {made && (
        <>
          <Box>
            {`${sourceNames[by]}, scaled by ${showNumber(made.amount, 2)} and lifted by ${showVolts(made.lift)}, gives `}
            <Box component="span" sx={{ fontFamily: fonts.numbers }}>
              {showRange(made.reading.low, made.reading.high, made.reading.unit)}
            </Box>
            .
          </Box>
          {!made.reached && (
            <Box sx={{ color: ink.warning }}>
              That is as near as this destination comes with its own knobs at rest; turn those on the desk.
            </Box>
          )}
        </>
      )}
    </Box>
  );
}
