'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo, useCallback, useState } from 'react';
import { useStore } from 'zustand';
import { hangsOn, knobPlace, placeName, unitOf } from '@/core';
import type { SolveAnswer, Target } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import { useSolving } from '@/ui/session/solving';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { Ghost } from '../strip/MainStrip';
import { WantedRow } from './WantedRow';
import { choicesAt, missOf, named } from './words';

const PlanSection = later(() => import('../rack/PlanSection').then((m) => m.PlanSection));
const EndsPlanSection = later(() => import('../rack/EndsPlanSection').then((m) => m.EndsPlanSection));
const Looking = later(() => import('./Looking').then((m) => m.Looking));
const Answers = later(() => import('./Answers').then((m) => m.Answers));

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The socket whose path is shown. */
  readonly shown: string | null;
  readonly setGhost: (ghost: Ghost | null) => void;
}

const titleOf = ({ missed, graph }: Predicted): string => {
  const { length } = graph.patch.targets;
  if (length === 0) return 'Targets';
  return `Targets: ${missed.filter((m) => m.met).length} of ${length} met`;
};

/** What is wanted of this patch, and the knobs for it. */
export function WantedSection(props: Props) {
  const { desk, predicted, shown, setGhost } = props;
  const { edit } = desk.getState();
  const { graph, missed, strip } = predicted;
  const from = strip?.frames[0]?.output ?? null;
  const { targets, modules } = graph.patch;
  return (
    <Box component="section" aria-label="Targets">
      <Section id="wanted" title={titleOf(predicted)} open>
        {targets.map((t) => (
          <WantedRow
            key={`${t.at} ${t.id ?? ''}`}
            target={t}
            place={placeName(modules, t.at)}
            unit={unitOf(graph, t)}
            other={placeName(modules, hangsOn(t).socket ?? hangsOn(t).module ?? '')}
            missed={missOf(missed, t)}
            edit={edit}
            modules={modules}
          />
        ))}
        <Add {...props} />
        {targets.length > 0 && <Solve desk={desk} setGhost={setGhost} />}
        <Planned desk={desk} target={targets.find((t) => t.at === shown)} from={from} setGhost={setGhost} />
        <SeveralEnds desk={desk} from={from} setGhost={setGhost} />
      </Section>
    </Box>
  );
}

interface FromProps extends Pick<Props, 'desk' | 'setGhost'> {
  /** The output that the path shown begins at. */
  readonly from: string | null;
}

/** Stages for what is wanted at the end that is shown, where its path has a source. */
const Planned = memo(function Planned({
  desk,
  target,
  from,
  setGhost,
}: FromProps & { readonly target: Target | undefined }) {
  const [open, setOpen] = useState(false);
  if (!target || !from) return null;
  if (!open)
    return (
      <Button onClick={() => setOpen(true)} sx={{ mt: 1 }}>
        Suggest stages
      </Button>
    );
  return <PlanSection desk={desk} target={target} from={from} setGhost={setGhost} />;
});

/** One source to several ends at once. */
const SeveralEnds = memo(function SeveralEnds({ desk, from, setGhost }: FromProps) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button onClick={() => setOpen(true)} sx={{ mt: 1 }}>
        Route one source to several destinations
      </Button>
    );
  return <EndsPlanSection desk={desk} from={from} setGhost={setGhost} />;
});

/** What can be wanted at the end that is shown, in words. */
function Add({ desk, predicted, shown }: Props) {
  const { graph, prediction } = predicted;
  const { targets, modules } = graph.patch;
  if (shown === null) return <Box sx={{ color: ink.softInk }}>Add a destination first, then set a target for it.</Box>;
  const place = placeName(modules, shown);
  const choices = choicesAt(graph, shown, prediction.readings, (socket) => placeName(modules, socket));
  const add = (key: string): void => {
    const choice = choices.find((c) => c.key === key);
    if (!choice) return;
    const target = named(targets, choice.target);
    const { edit } = desk.getState();
    edit(`Add target at ${place}: ${choice.title}`, [
      { do: 'target', at: target.at, ...(target.id !== undefined && { id: target.id }), target },
    ]);
  };
  return (
    <SelectField
      label={`Add a target for ${place}`}
      value=""
      options={[['', `Add a target for ${place}…`], ...choices.map((c) => [c.key, c.title] as const)]}
      onChange={add}
      sx={{ width: '100%', mt: 1 }}
    />
  );
}

/** Asks for the knobs; with the rest held, one that is turned by hand takes the others along. */
const Solve = memo(function Solve({ desk, setGhost }: Pick<Props, 'desk' | 'setGhost'>) {
  const solving = useSolving();
  const { answered, busy, failure, hold, live, progress } = useStore(solving);
  const current = useStore(desk, (s) => answered?.patch === s.patch);
  const [jumpers, setJumpers] = useState(false);
  const { solve, cancel, setHold } = solving.getState();
  const { edit } = desk.getState();
  const show = useCallback((ghost: Ghost | null) => setGhost(ghost), [setGhost]);
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
        {busy === 'solve' ? (
          <Button onClick={cancel}>Stop</Button>
        ) : (
          <Button color="primary" onClick={() => solve(jumpers)}>
            Solve for knob settings
          </Button>
        )}
        <FormControlLabel
          control={<Checkbox checked={jumpers} onChange={(e) => setJumpers(e.target.checked)} />}
          label="Allow jumper and switch changes"
        />
      </Box>
      <FormControlLabel
        control={<Checkbox checked={hold} onChange={(e) => setHold(e.target.checked)} sx={{ p: 0.5 }} />}
        label="Keep targets met while I turn a knob"
      />
      {busy === 'solve' && (
        <Box role="status">
          Solving…
          <Looking progress={progress} />
        </Box>
      )}
      {failure && <Alert severity="error">{failure}</Alert>}
      {live && !live.feasible && <RunsOut limits={live.limits} desk={desk} />}
      {current && answered && <Answers patch={answered.patch} answer={answered.answer} edit={edit} setGhost={show} />}
    </Box>
  );
});

/** Under a moving hand: what cannot follow. */
function RunsOut({ limits, desk }: { readonly limits: SolveAnswer['limits']; readonly desk: DeskStore }) {
  const modules = useStore(desk, (s) => s.patch.modules);
  const names = limits.map((l) => knobPlace(modules, l.at)).join(', ');
  return (
    <Alert severity="warning" data-runs-out>
      {names ? `${names} can’t follow: it is at the end of its travel.` : 'The unlocked knobs can’t follow.'}
    </Alert>
  );
}
