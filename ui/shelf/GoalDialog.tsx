'use client';
import { idOf, partsOf } from '@/core';
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
  kindNamed,
  readQuantity,
  showNumber,
  showQuantity,
  showRange,
  showVolts,
} from '@/core';
import type { GoalSource, Patch } from '@/core';
import { endChoices } from '@/ui/parts/choices';
import { fieldStyle } from '@/ui/parts/fieldStyle';
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

interface Props {
  readonly onDone: (patch: Patch) => void;
  readonly onClose: () => void;
}

/** What shall move, between which values, moved by what: and a chain that does it. */
export function GoalDialog({ onDone, onClose }: Props) {
  const [key, setKey] = useState(choices[0]?.key ?? '');
  const [by, setBy] = useState<GoalSource>('lfo');
  const [typed, setTyped] = useState(() => startOf(choices[0]?.key ?? ''));
  const { id: kind, name: socket } = partsOf(key);
  const end = endOf(key);
  const unit = end?.unit(completeParams(kindNamed(kind) as NonNullable<ReturnType<typeof kindNamed>>)) ?? '';
  const [low, high] = [readQuantity(typed.low, unit), readQuantity(typed.high, unit)];
  const fault =
    low === null || high === null
      ? `Type two figures${unit ? ` in ${unit}` : ''}.`
      : low >= high
        ? 'The first figure must lie below the second.'
        : null;
  const made = fault === null && low !== null && high !== null ? chainFor({ kind, socket, low, high, by }) : null;
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
            <Box
              component="select"
              value={key}
              onChange={(e) => {
                setKey(e.target.value);
                setTyped(startOf(e.target.value));
              }}
              sx={{ ...fieldStyle, font: `14px ${fonts.text}`, padding: '6px', maxWidth: 'none' }}
            >
              {choices.map((c) => (
                <option key={c.key} value={c.key}>
                  {c.title}
                </option>
              ))}
            </Box>
          </Row>
          <Box role="group" aria-label="Between which values?">
            <Box sx={{ fontWeight: 700, mb: 0.5 }}>Between which values?</Box>
            {(['low', 'high'] as const).map((which) => (
              <Box
                component="input"
                key={which}
                aria-label={which === 'low' ? 'from' : 'to'}
                value={typed[which]}
                onChange={(e) => setTyped({ ...typed, [which]: e.target.value })}
                sx={{ ...fieldStyle, padding: '6px', width: 130, mr: 1 }}
              />
            ))}
          </Box>
          <Row label="Moved by what?" says="">
            <Box
              component="select"
              value={by}
              onChange={(e) => setBy(e.target.value as GoalSource)}
              sx={{ ...fieldStyle, font: `14px ${fonts.text}`, padding: '6px', maxWidth: 'none' }}
            >
              {goalSources.map((s) => (
                <option key={s} value={s}>
                  {sourceNames[s]}
                </option>
              ))}
            </Box>
          </Row>
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
    <Box component="label" sx={{ display: 'grid', gap: 0.5 }}>
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
