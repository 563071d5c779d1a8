'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { scaleLinear, scaleLog } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useState } from 'react';
import { briefSeconds, idOf, knobPlace, knobsIn, paramLabel, showRange } from '@/core';
import type { Hand, HandPoint, Patch } from '@/core';
import { later } from '@/ui/parts/later';
import { SelectField } from '@/ui/parts/SelectField';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';

const GestureDialog = later(() => import('./GestureDialog').then((m) => m.GestureDialog));

interface Props {
  readonly patch: Patch;
  /** Of one stage; left out: all of the patch. */
  readonly id?: string;
  readonly edit: EditDesk;
}

interface Knob {
  readonly at: string;
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly unit: string;
  /** Turned in octaves. */
  readonly octaves: boolean;
  readonly value: number;
}

/** The knobs that a hand can turn, by the names that a stage's own panel or the whole patch gives them. */
function knobsFor(patch: Patch, id: string | undefined): Knob[] {
  return patch.modules
    .filter((m) => id === undefined || m.id === id)
    .flatMap((m) => knobsIn(m, patch.settings.bpm))
    .map(({ at, name, spec, min, max, value }) => ({
      at,
      label: id === undefined ? knobPlace(patch.modules, at) : paramLabel(name, spec),
      min,
      max,
      unit: spec.unit ?? '',
      octaves: spec.taper === 'log' && min > 0,
      value,
    }));
}

/** Hands on knobs, a lane each, under each other on one time. */
export function HandLanes({ patch, id, edit }: Props) {
  const knobs = knobsFor(patch, id);
  const hands = patch.hands.filter((h) => id === undefined || idOf(h.at) === id);
  const free = knobs.filter((k) => !hands.some((h) => h.at === k.at));
  const longest = Math.max(patch.settings.duration, ...hands.map((h) => h.points.at(-1)?.t ?? 0));
  const begin = (at: string): void => {
    const knob = knobs.find((k) => k.at === at);
    if (!knob) return;
    const points = [{ t: 0, value: knob.value }];
    edit(`Automate ${knob.label}`, [{ do: 'hand', at, hand: { at, points, interpolation: 'linear', loop: false } }]);
  };
  return (
    <>
      {hands.map((hand) => (
        <Lane key={hand.at} hand={hand} knob={knobs.find((k) => k.at === hand.at)} longest={longest} edit={edit} />
      ))}
      {id !== undefined && free.length > 0 && (
        <SelectField
          label="Automate a knob"
          value=""
          options={[['', 'Automate a knob…'] as const, ...free.map((k) => [k.at, k.label] as const)]}
          onChange={(at) => at !== '' && begin(at)}
          sx={{ minWidth: 180 }}
        />
      )}
    </>
  );
}

interface LaneProps {
  readonly hand: Hand;
  readonly knob: Knob | undefined;
  readonly longest: number;
  readonly edit: EditDesk;
}

function Lane({ hand, knob, longest, edit }: LaneProps) {
  const [open, setOpen] = useState(false);
  if (!knob) return null;
  const { at, points, interpolation, loop } = hand;
  const put = (label: string, change: Partial<Hand> | null): void =>
    edit(label, [{ do: 'hand', at, hand: change && { ...hand, ...change } }]);
  return (
    <Box data-lane={at} sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 13 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>{`${knob.label}, ${briefSeconds(points.at(-1)?.t ?? 0)}`}</Box>
        <Button aria-label={`Edit automation of ${knob.label}`} onClick={() => setOpen(true)}>
          Edit
        </Button>
        <Button
          aria-label={`Remove automation of ${knob.label}`}
          onClick={() => put(`Remove automation of ${knob.label}`, null)}
        >
          Remove
        </Button>
      </Box>
      <LanePicture hand={hand} knob={knob} longest={longest} />
      <Box sx={{ display: 'flex', gap: 2 }}>
        <FormControlLabel
          sx={{ m: 0 }}
          control={
            <Checkbox
              size="small"
              checked={loop}
              onChange={(e) => put('Loop automation', { loop: e.target.checked })}
            />
          }
          label="Loop"
        />
        <FormControlLabel
          sx={{ m: 0 }}
          control={
            <Checkbox
              size="small"
              checked={interpolation === 'hold'}
              onChange={(e) =>
                put('Set automation interpolation', { interpolation: e.target.checked ? 'hold' : 'linear' })
              }
            />
          }
          label="Stepped"
        />
      </Box>
      {open && (
        <GestureDialog
          name={knob.label}
          points={points.map((p) => ({ t: p.t, volts: p.value }))}
          held={interpolation === 'hold'}
          duration={longest}
          knob={{ span: [knob.min, knob.max], unit: knob.unit, octaves: knob.octaves }}
          onClose={() => setOpen(false)}
          onRemove={() => put(`Remove automation of ${knob.label}`, null)}
          onDone={(drawn) => {
            setOpen(false);
            put(`Automate ${knob.label}`, { points: drawn.map((p) => ({ t: p.t, value: p.volts })) });
          }}
        />
      )}
    </Box>
  );
}

const SIZE = { width: 260, height: 44 } as const;

/** A hand over time, the knob's whole travel high. */
function LanePicture({ hand, knob, longest }: { readonly hand: Hand; readonly knob: Knob; readonly longest: number }) {
  const x = scaleLinear().domain([0, longest]).range([0, SIZE.width]);
  const y = (knob.octaves ? scaleLog : scaleLinear)([knob.min, knob.max], [SIZE.height - 2, 2]);
  const straight = line<HandPoint>()
    .x((p) => x(p.t))
    .y((p) => y(p.value));
  const path = hand.interpolation === 'hold' ? straight.curve(curveStepAfter) : straight;
  const last = hand.points.at(-1);
  const shown = last ? [...hand.points, { ...last, t: longest }] : [];
  const values = hand.points.map((p) => p.value);
  const says = `${knob.label}: ${showRange(Math.min(...values), Math.max(...values), knob.unit)}`;
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      width="100%"
      height={SIZE.height}
      preserveAspectRatio="none"
      role="img"
      aria-label={says}
    >
      <rect width={SIZE.width} height={SIZE.height} fill={ink.bound} />
      <path d={path(shown) ?? ''} fill="none" stroke={ink.trace} strokeWidth="1.6" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
