'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { Fragment, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import {
  completeParams,
  goalRequest,
  goalSources,
  idOf,
  kindNamed,
  partsOf,
  quantityFault,
  readQuantity,
  showQuantity,
} from '@/core';
import type { GoalSource, Patch, Plan } from '@/core';
import { typedRange } from '@/ui/parts/typedRange';
import { useChosenRack, useRackDocument } from '@/ui/parts/chosenRack';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import { endChoices } from '@/ui/parts/choices';
import { SelectField } from '@/ui/parts/SelectField';
import { RackSelect } from '@/ui/parts/RackSelect';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import { GoalPlans } from './GoalPlans';
import { FIELDS, faultOf, waysFor, wishOf } from './goals';
import type { Way } from './goals';

/** A goal is about what one voltage does between two limits. */
const choices = endChoices.filter((c) => windowOf(c.key) !== null);
const sourceNames: Readonly<Record<GoalSource, string>> = {
  lfo: 'LFO',
  envelope: 'Clocked envelope',
  gesture: 'Fader gesture',
  sequencer: 'Clocked sequencer',
};

function endOf(key: string) {
  const { id: kind, name: socket } = partsOf(key);
  return kindNamed(kind)?.ends?.find((e) => e.socket === socket);
}

function windowOf(key: string) {
  const kind = kindNamed(idOf(key));
  return (kind && endOf(key)?.window(completeParams(kind))) ?? null;
}

interface Typed {
  readonly low: string;
  readonly high: string;
}

/** Two figures in the middle of what a destination answers to, to begin with. */
function startOf(key: string): Typed {
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

/** Chains for a goal, planned once its figures can be read. */
function usePlans(key: string, by: GoalSource, way: Way, figures: readonly (number | null)[], onRack: boolean) {
  const { id } = useChosenRack();
  const { rack, coming } = useRackDocument(onRack ? id : '');
  const { id: kind, name: socket } = partsOf(key);
  const quantity = endOf(key)?.quantity ?? 'volts';
  const text = JSON.stringify(wishOf(way, quantity, figures));
  const ask = useMemo((): Asked<Plan> | null => {
    if (coming) return null;
    const wish = JSON.parse(text) as ReturnType<typeof wishOf>;
    const request = wish && goalRequest({ kind, socket, wish, by });
    return request && ((worker) => worker.plan({ ...request, stages: 2 }, rack));
  }, [kind, socket, text, by, rack, coming]);
  const planned = usePlanned(ask);
  return { ...planned, busy: planned.busy || coming };
}

/** What was typed, one figure a field; a whole range in the first, `200 Hz to 3 kHz`, fills both. */
function parted(typed: Typed): Typed {
  const both = typedRange(typed.low);
  return both ? { low: both[0], high: both[1] } : typed;
}

interface FigureProps {
  readonly way: Way;
  readonly typed: Typed;
  /** A range that is still being typed stays whole in its field until that is left. */
  readonly onTyped: (typed: Typed) => void;
}

/** The figures of a target: `200 Hz` to `3 kHz`. */
function FigureFields({ way, typed, onTyped }: FigureProps) {
  const { title, names, between } = FIELDS[way];
  return (
    <Row label={title} says="">
      <Box role="group" aria-label={title} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        {(['low', 'high'] as const).slice(0, names.length).map((which, i) => (
          <Fragment key={which}>
            {i > 0 && <span>{between}</span>}
            <TextInput
              label={names[i] ?? which}
              figures
              value={which === 'low' ? typed.low : parted(typed).high}
              onChange={(text) => onTyped({ ...typed, [which]: text })}
              onBlur={() => onTyped(parted(typed))}
              sx={{ width: 130 }}
            />
          </Fragment>
        ))}
      </Box>
    </Row>
  );
}

/** A new patch from a target: the destination, its range, the source, and the paths that reach it. */
export function GoalDialog({ onDone, onClose }: Props) {
  const [key, setKey] = useState(choices[0]?.key ?? '');
  const [by, setBy] = useState<GoalSource>('lfo');
  const [how, setHow] = useState<Way>('range');
  const [typed, setTyped] = useState(() => startOf(choices[0]?.key ?? ''));
  const [onRack, setOnRack] = useState(true);
  const [picked, setPicked] = useState(0);
  const end = endOf(key);
  const unit = end?.unit(completeParams(kindNamed(idOf(key)) as NonNullable<ReturnType<typeof kindNamed>>)) ?? '';
  const ways = waysFor(end?.quantity ?? 'volts', unit);
  const way = ways.some(([w]) => w === how) ? how : 'range';
  const { low, high } = parted(typed);
  const figures = [low, high].map((text) => readQuantity(text, way === 'fall' ? '' : unit));
  const asked = [low, high]
    .slice(0, FIELDS[way].names.length)
    .map((text) => quantityFault(text, way === 'fall' ? '' : unit));
  const fault = asked.find((a) => a !== null) ?? faultOf(way, figures, unit);
  const plans = usePlans(key, by, way, figures, onRack);
  const made = fault === null ? (plans.answer?.proposals[picked] ?? plans.answer?.proposals[0]) : undefined;
  return (
    <Dialog open onClose={onClose} aria-labelledby="goal-title" maxWidth="sm" fullWidth>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (made) onDone(made.patch);
        }}
      >
        <DialogTitle id="goal-title">New patch from a target</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
          <Row label="Destination" says={choices.find((c) => c.key === key)?.says ?? ''}>
            <SelectField
              label="Destination"
              value={key}
              options={choices.map((c) => [c.key, c.title] as const)}
              onChange={(next) => {
                setKey(next);
                setTyped(startOf(next));
              }}
            />
          </Row>
          <Row label="Target type" says="">
            <SelectField label="Target type" value={way} options={ways} onChange={setHow} />
          </Row>
          <FigureFields way={way} typed={typed} onTyped={setTyped} />
          <Row label="Source" says="">
            <SelectField
              label="Source"
              value={by}
              options={goalSources.map((x) => [x, sourceNames[x]] as const)}
              onChange={setBy}
            />
          </Row>
          <Row label="Rack" says="">
            <RackSelect width="100%" />
          </Row>
          <GoalPlans {...{ fault, onRack, picked }} plans={plans} onPick={setPicked} onRackChange={setOnRack} />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" color="primary" disabled={!made}>
            Open in editor
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
