'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import { briefSeconds, showQuantity, showVolts } from '@/core';
import type { GesturePoint, Range } from '@/core';
import { counted } from '@/ui/parts/counted';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import { drawnOver, ordered, simplified } from './points';
import { Recorder } from './Recorder';
import { Timeline } from './Timeline';

const RANGES = ['0 to 5', '0 to 8', '0 to 10', '-5 to 5', '-10 to 10'] as const;
/** A drawn line may be off by this share of the range. */
const LOOSE = 0.004;
interface Props {
  readonly name: string;
  readonly points: readonly GesturePoint[];
  readonly held: boolean;
  readonly duration: number;
  /** What a knob can be set to, in its own unit; left out: volts, in a range that is chosen. */
  readonly knob?: { readonly span: Range; readonly unit: string; readonly octaves: boolean };
  readonly onDone: (points: readonly GesturePoint[]) => void;
  readonly onClose: () => void;
  /** Takes the automation away; left out where the gesture is a source of its own. */
  readonly onRemove?: () => void;
}

const rangeNamed = (range: string): Range => {
  const [low = '', high = ''] = range.split(' to ');
  return [Number(low), Number(high)];
};

/** The smallest range that all points lie in. */
const rangeFor = (points: readonly GesturePoint[]): string =>
  RANGES.find((r) => points.every((p) => p.volts >= rangeNamed(r)[0] && p.volts <= rangeNamed(r)[1])) ?? '-10 to 10';

/** A hand on a fader: set point by point, drawn in one go, or recorded in real time. */
export function GestureDialog({ name, points: given, held, duration, knob, onDone, onClose, onRemove }: Props) {
  const [points, setPoints] = useState<readonly GesturePoint[]>(given);
  const [range, setRange] = useState(() => rangeFor(given));
  const [way, setWay] = useState<'points' | 'draw'>('draw');
  const [low, high] = knob?.span ?? rangeNamed(range);
  const longest = Math.max(duration, given.at(-1)?.t ?? 0);
  const tolerance = (high - low) * LOOSE;
  const show = knob ? (v: number): string => showQuantity(v, knob.unit) : showVolts;
  return (
    <Dialog open onClose={onClose} aria-labelledby="gesture-title" maxWidth="md" fullWidth>
      <DialogTitle id="gesture-title">{`${name}: ${onRemove ? 'automation' : 'gesture'}, ${briefSeconds(longest)}`}</DialogTitle>
      <DialogContent>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
          <ToggleButtonGroup
            exclusive
            aria-label="How"
            value={way}
            onChange={(_, next: 'points' | 'draw' | null) => next && setWay(next)}
          >
            <ToggleButton value="draw">Draw</ToggleButton>
            <ToggleButton value="points">Points</ToggleButton>
          </ToggleButtonGroup>
          <Box sx={{ display: knob ? 'none' : 'flex', alignItems: 'center', gap: 1 }}>
            Range (V)
            <SelectField
              label="Range (V)"
              value={range}
              options={RANGES.map((r) => [r as string, r.replaceAll('-', '\u2212')] as const)}
              onChange={setRange}
            />
          </Box>
          <Box sx={{ color: ink.softInk }} role="status">
            {counted(points.length, 'point')}
          </Box>
        </Box>
        <Timeline
          points={points}
          setPoints={setPoints}
          range={[low, high]}
          longest={longest}
          way={way}
          held={held}
          show={show}
          octaves={knob?.octaves ?? false}
          tolerance={tolerance}
        />
        <Recorder
          show={show}
          octaves={knob?.octaves ?? false}
          range={[low, high]}
          longest={longest}
          onRecorded={(taken) => setPoints(drawnOver(points, simplified(ordered(taken), tolerance)))}
        />
        <Box sx={{ color: ink.softInk, fontSize: 13, mt: 1 }}>
          Draw: drag across the timeline. Points: click or press Enter to add, drag or use the arrow keys to move,
          Delete to remove.
        </Box>
      </DialogContent>
      <DialogActions>
        {onRemove && (
          <Button onClick={onRemove} sx={{ mr: 'auto' }}>
            Remove automation
          </Button>
        )}
        <Button onClick={() => setPoints([{ t: 0, volts: Math.max(low, Math.min(high, 0)) }])}>Clear</Button>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="primary" onClick={() => onDone(points)}>
          Apply
        </Button>
      </DialogActions>
    </Dialog>
  );
}
