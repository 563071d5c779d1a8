import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { applyEdits, buildGraph, idOf, nameOf, printPatch } from '@/core';
import type { Patch } from '@/core';
import type { Answer, Mark } from '@/core/practice';
import { Strip } from '@/ui/editor/strip/Strip';
import { call } from '@/ui/parts/api';
import { tellFault } from '@/ui/parts/messages';
import { usePrediction } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';
import { AnswerForm } from './AnswerForm';
import { Explained } from './Explained';

interface Props {
  readonly shown: ShownExercise;
  readonly mark: Mark | null;
  readonly onAnswer: (answer: Answer) => void;
  readonly onNext: () => void;
  readonly onAlike: () => void;
}

/** While something is covered, the ruler tells nothing of it. */
const RULER = [-12, 12] as const;
/** Stage after stage is uncovered, milliseconds each. */
const UNCOVER = 450;

/** How many stages are uncovered: one after the other once it is marked, all at once where motion is unwelcome. */
function useUncovered(marked: boolean, stages: number): number {
  const [uncovered, setUncovered] = useState(0);
  useEffect(() => {
    if (!marked || uncovered >= stages) return;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    const timer = setTimeout(() => setUncovered(still ? stages : uncovered + 1), still ? 0 : UNCOVER);
    return () => clearTimeout(timer);
  }, [marked, uncovered, stages]);
  return uncovered;
}

/** One exercise: what is asked, the path with that covered, and after the answer how it comes about. */
export function ExerciseView({ shown, mark, onAnswer, onNext, onAlike }: Props) {
  const { exercise, given } = shown;
  const { ask, patch } = exercise;
  const hidden = useMemo(() => [...new Set(ask.hidden.map(idOf))], [ask.hidden]);
  const uncovered = useUncovered(mark !== null, hidden.length);
  const covered = useMemo(() => new Set(hidden.slice(uncovered)), [hidden, uncovered]);
  // Where no socket is asked about, what is set may be the answer.
  const told = ask.at === null ? given.filter((g) => !hidden.includes(g.module)) : given;
  // Knobs stand where they should once that is told.
  const right = useMemo(() => (mark ? withKnobs(patch, mark.truth) : patch), [patch, mark]);
  // A path that is not asked about would tell the answer.
  const withPath = ask.at !== null || ask.answer === 'fault';
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 380px' }, gap: 3 }}>
      <Box sx={{ minWidth: 0 }}>
        <Box component="h2" sx={{ fontSize: 16, fontWeight: 700, m: 0, mb: 1 }}>
          {ask.text}
        </Box>
        {withPath && <Path patch={right} at={ask.at} covered={covered} />}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {!mark && <AnswerForm shown={shown} onAnswer={onAnswer} />}
        {mark && (
          <>
            <Explained exercise={exercise} mark={mark} />
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
              <Button variant="contained" color="primary" autoFocus onClick={onNext}>
                Next
              </Button>
              <Button onClick={onAlike}>Another like this</Button>
              <OpenButton patch={patch} />
            </Box>
          </>
        )}
        {!mark && (
          <Box component="ul" aria-label="What the stages do" sx={{ pl: 2, color: ink.softInk, fontSize: 14 }}>
            {told.map((g) => (
              <li key={g.module}>{g.text}</li>
            ))}
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** A patch with the knobs of an answer set. */
const withKnobs = (patch: Patch, answer: Answer): Patch =>
  'knobs' in answer
    ? applyEdits(
        patch,
        answer.knobs.map(({ at, value }) => ({ do: 'set', module: idOf(at), param: nameOf(at), value }) as const),
      )
    : patch;

function Path({
  patch,
  at,
  covered,
}: {
  readonly patch: Patch;
  readonly at: string | null;
  readonly covered: ReadonlySet<string>;
}) {
  const graph = useMemo(() => buildGraph(patch), [patch]);
  const isInput = at !== null && graph.modules.some((m) => m.inputs.some((s) => s.socket === at));
  const end = isInput || at === null ? at : (graph.wiring.cablesFrom(at)[0]?.to ?? null);
  const predicted = usePrediction(patch, end, { whole: false });
  if (!predicted.strip) return null;
  return (
    <Box sx={{ display: 'flex', height: { xs: 300, md: 400 }, '& > *': { minWidth: 0 } }}>
      <Strip
        predicted={predicted}
        strip={predicted.strip}
        covered={covered}
        {...(covered.size > 0 && { domain: RULER })}
        label="The path, with what is asked for covered"
      />
    </Box>
  );
}

/** Keeps the patch of an exercise in the library, and goes there. */
function OpenButton({ patch }: { readonly patch: Patch }) {
  const router = useRouter();
  const open = (): void =>
    void call<{ id: string }>('POST', '/patches', { patch: printPatch(patch) })
      .then(({ id }) => router.push(`/patches/${id}`))
      .catch(tellFault);
  return <Button onClick={open}>Open in editor</Button>;
}
