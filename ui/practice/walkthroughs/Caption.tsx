import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import type { Patch } from '@/core';
import { differencesOf, idOf, kindNamed, knobsIn, nameOf, placeName, socketAt } from '@/core';
import { FIGURE_WORDS, figureText } from '@/core/practice';
import type { FigureAt, Walkthrough } from '@/core/practice';
import { PauseIcon, PlayIcon } from '@/ui/parts/icons';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';
import { Question } from './Question';
import { useFigure } from './useFigure';
import { StepChanges, StepKnobs } from './StepKnobs';
import type { Player } from './usePlayer';

interface Props {
  readonly walkthrough: Walkthrough;
  readonly player: Player;
  readonly predicted: Predicted;
  readonly onEnd: () => void;
}

/** The modules of a path, and of what joins it. */
const modulesOn = ({ strip }: Predicted): readonly string[] =>
  [...(strip?.frames ?? []), ...(strip?.joinings ?? []).flatMap((j) => j.frames)].map((f) => f.module.id);

/** The knobs of a step; of one that turns none, those on its path that were turned last, else its source’s first. */
function knobsAt({ steps, patch }: Walkthrough, at: number, path: readonly string[]): readonly string[] {
  const isTurned = (place: string): boolean => {
    const m = patch.modules.find((x) => x.id === idOf(place));
    return m !== undefined && kindNamed(m.kind)?.params[nameOf(place)]?.type === 'number';
  };
  const turned = (i: number): string[] => (steps[i]?.set ?? []).flatMap((s) => (isTurned(s.at) ? [s.at] : []));
  const own = turned(at);
  if (own.length > 0) return own;
  const nearest = [...steps.slice(0, at).map((_, i) => at - 1 - i), ...steps.map((_, i) => i)];
  const onPath = nearest.map((i) => turned(i).filter((k) => path.includes(idOf(k)))).find((list) => list.length > 0);
  const source = patch.modules.find((m) => m.id === path[0]);
  return (
    onPath ??
    (source
      ? knobsIn(source)
          .slice(0, 1)
          .map((k) => k.at)
      : [])
  );
}

/** The sentence of a step, what to look at, its knobs, and the way on. */
export function Caption({ walkthrough, player, predicted, onEnd }: Props) {
  const { steps } = walkthrough;
  const { state, step, send, touched, comeBack, desk } = player;
  const asking = state.phase === 'asking';
  const patch = useStore(desk, (s) => s.patch);
  const path = modulesOn(predicted).join(' ');
  const knobs = useMemo(() => knobsAt(walkthrough, state.at, path.split(' ')), [walkthrough, state.at, path]);
  return (
    <Box component="section" aria-label="Step" data-step={state.at + 1} data-phase={state.phase} sx={captionStyle}>
      <Box sx={{ color: ink.softInk, fontSize: 13 }}>{`Step ${state.at + 1} of ${steps.length}`}</Box>
      <Box role="status" sx={{ fontSize: 17, lineHeight: 1.45, minHeight: { md: 76 } }} data-caption>
        {asking ? '' : step.text}
      </Box>
      {step.question && (
        <Question
          key={state.at}
          question={step.question}
          target={player.target}
          answer={state.answer}
          asking={asking}
          onAnswer={(value) => send({ is: 'answer', value })}
          onShow={() => send({ is: 'show' })}
        />
      )}
      {step.look && !asking && <Figure patch={patch} look={step.look} />}
      {!asking && <Changes player={player} />}
      {!asking && knobs.length > 0 && <StepKnobs desk={desk} knobs={knobs} />}
      {touched && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Box sx={{ color: ink.softInk, fontSize: 14 }}>You turned something.</Box>
          <Button onClick={comeBack}>Come back</Button>
        </Box>
      )}
      <Way {...{ steps, player, onEnd }} />
    </Box>
  );
}

const captionStyle = { display: 'flex', flexDirection: 'column', gap: 1.5, p: 2 } as const;

/** The figure to look at, as it is this moment; paler until it is that of the very patch. */
function Figure({ patch, look }: { readonly patch: Patch; readonly look: FigureAt }) {
  const found = useFigure(patch, look);
  const share = look.figure === 'closedPercent' || look.figure === 'highPercent';
  return (
    <Box sx={{ borderLeft: `3px solid ${ink.wanted}`, pl: 1.5 }} data-look={look.at}>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>
        {`${placeName(patch.modules, look.at)}, ${FIGURE_WORDS[look.figure]}`}
      </Box>
      <Box
        sx={{ fontSize: 18, color: found?.current ? ink.ink : ink.softInk }}
        data-look-current={found?.current ?? false}
      >
        <Box component="span" sx={{ fontFamily: fonts.numbers, fontSize: 24 }} data-look-value>
          {found?.value ? figureText(look, found.value) : '…'}
        </Box>
        {share && ' of the time'}
      </Box>
    </Box>
  );
}

/** What a step changes beside its knobs. */
function Changes({ player: { step, state, before, target } }: { readonly player: Player }) {
  const changes = useMemo(() => {
    const turned = new Set(step.set.flatMap((s) => (typeof s.value === 'number' ? [s.at] : [])));
    const all = step.variant !== undefined || step.set.some((s) => typeof s.value !== 'number');
    return all
      ? differencesOf(before, target).filter(
          ({ edits }) => !edits.every((e) => e.do === 'set' && turned.has(socketAt(e.module, e.param))),
        )
      : [];
  }, [step, before, target]);
  return changes.length > 0 ? <StepChanges key={state.at} changes={changes} /> : null;
}

interface WayProps {
  readonly steps: Walkthrough['steps'];
  readonly player: Player;
  readonly onEnd: () => void;
}

/** Back, on, by itself, and where in the whole one is. */
function Way({ steps, player: { state, send }, onEnd }: WayProps) {
  const last = state.at === steps.length - 1;
  const done = last && state.phase === 'resting';
  return (
    <Box sx={{ mt: { md: 'auto' } }}>
      <Slider
        aria-label="Step"
        size="small"
        min={1}
        max={Math.max(2, steps.length)}
        step={1}
        marks
        value={state.at + 1}
        getAriaValueText={(n) => `Step ${n} of ${steps.length}`}
        onChange={(_, n) => send({ is: 'goTo', at: Number(n) - 1 })}
        disabled={steps.length < 2}
      />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button disabled={state.at === 0} onClick={() => send({ is: 'back' })} aria-keyshortcuts="ArrowLeft">
          Back
        </Button>
        <Button
          onClick={() => send({ is: state.runs ? 'pause' : 'play' })}
          startIcon={state.runs ? <PauseIcon /> : <PlayIcon />}
          aria-keyshortcuts="k"
        >
          {state.runs ? 'Pause' : state.paused ? 'Go on' : 'Run by itself'}
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button
          variant="contained"
          color="primary"
          aria-keyshortcuts="ArrowRight"
          onClick={() => (done ? onEnd() : send({ is: state.phase === 'asking' ? 'show' : 'next' }))}
        >
          {done ? 'Finish' : 'Next'}
        </Button>
      </Box>
    </Box>
  );
}
