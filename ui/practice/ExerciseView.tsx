import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import { applyEdits, buildGraph, endsOf, idOf, nameOf } from '@/core';
import type { Patch } from '@/core';
import type { Answer, KnownSlip, Mark } from '@/core/practice';
import { Strip } from '@/ui/editor/strip/Strip';
import { later } from '@/ui/parts/later';
import { usePrediction } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';
import { AnswerForm } from './AnswerForm';
import { Explained } from './Explained';

const EarPair = later(() => import('./EarPair').then((m) => m.EarPair));

interface Props {
  readonly shown: ShownExercise;
  readonly mark: Mark | null;
  /** What known mistakes would have given. */
  readonly slips?: readonly KnownSlip[];
  /** It is worked out for the learner. */
  readonly example?: boolean;
  readonly onAnswer: (answer: Answer) => void;
  /** What can be done once it is marked. */
  readonly children: ReactNode;
}

/** While something is covered, the ruler tells nothing of it. */
const RULER = [-12, 12] as const;
/** Stage after stage is uncovered, milliseconds each. */
const UNCOVER = 900;

/** How many stages are uncovered: one after the other once it is explained, all at once where motion is unwelcome. */
function useUncovered(explains: boolean, stages: number): number {
  const [uncovered, setUncovered] = useState(0);
  useEffect(() => {
    if (!explains || uncovered >= stages) return;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    const timer = setTimeout(() => setUncovered(still ? stages : uncovered + 1), still ? 0 : UNCOVER);
    return () => clearTimeout(timer);
  }, [explains, uncovered, stages]);
  return uncovered;
}

/** One exercise: what is asked, the path with that covered, and after the answer how it comes about. */
export function ExerciseView({ shown, mark, slips = [], example = false, onAnswer, children }: Props) {
  const { exercise, given } = shown;
  const { ask, patch } = exercise;
  const hidden = useMemo(() => [...new Set(ask.hidden.map(idOf))], [ask.hidden]);
  // What was right needs no reason, unless one asks for it.
  const [why, setWhy] = useState(false);
  const explains = mark !== null && (why || !mark.right || example);
  const steps = useUncovered(explains, hidden.length);
  const uncovered = mark && !explains ? hidden.length : steps;
  const covered = useMemo(() => new Set(hidden.slice(uncovered)), [hidden, uncovered]);
  // Where no socket is asked about, what is set may be the answer.
  const told = ask.at === null ? given.filter((g) => !hidden.includes(g.module)) : given;
  // Knobs stand where they should once that is told.
  const right = useMemo(() => (mark ? withKnobs(patch, mark.truth) : patch), [patch, mark]);
  const heard = (ask.choices ?? []).filter((c) => c.edits !== undefined);
  // A path that is not asked about would tell the answer.
  const withPath = heard.length === 0 && (ask.at !== null || ask.answer === 'fault' || mark !== null);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 380px' }, gap: 3 }}>
      <Box sx={{ minWidth: 0 }}>
        <Box component="h2" sx={{ fontSize: 16, fontWeight: 700, m: 0, mb: 1 }}>
          {example && (
            <Box component="span" sx={{ color: ink.wanted, mr: 1 }}>
              Worked example:
            </Box>
          )}
          {ask.text}
        </Box>
        {withPath && <Path patch={right} at={ask.at} covered={covered} whole={mark !== null} />}
        {heard.length > 0 && <EarPair patch={patch} choices={heard} />}
        {heard.length > 0 && mark && <HeardPaths patch={patch} choices={heard} />}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {!mark && <AnswerForm shown={shown} onAnswer={onAnswer} />}
        {mark && (
          <>
            <Explained {...{ exercise, mark, slips, example, covered }} explains={explains} />
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
              {children}
              {!explains && <Button onClick={() => setWhy(true)}>Why</Button>}
            </Box>
          </>
        )}
        {(!mark || example) && (
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

interface PathProps {
  readonly patch: Patch;
  readonly at: string | null;
  readonly covered: ReadonlySet<string>;
  /** It is simulated whole: what arrives at its end is shown, too. */
  readonly whole?: boolean;
  readonly low?: boolean;
}

function Path({ patch, at, covered, whole = true, low = false }: PathProps) {
  const graph = useMemo(() => buildGraph(patch), [patch]);
  const isInput = at !== null && graph.modules.some((m) => m.inputs.some((s) => s.socket === at));
  const end = isInput || at === null ? at : (graph.wiring.cablesFrom(at)[0]?.to ?? null);
  const predicted = usePrediction(patch, end, { whole });
  if (!predicted.strip) return null;
  return (
    <Box
      sx={{
        display: 'flex',
        height: low ? 230 : { xs: 300, md: 'clamp(380px, 58vh, 620px)' },
        '& > *': { minWidth: 0 },
      }}
    >
      <Strip
        predicted={predicted}
        strip={predicted.strip}
        covered={covered}
        // What is asked about is never folded.
        chosen={at === null ? [] : [idOf(at)]}
        live={false}
        low={low}
        {...(covered.size > 0 && { domain: RULER })}
        label="The path, with what is asked for covered"
      />
    </Box>
  );
}

const NOTHING: ReadonlySet<string> = new Set();

/** What was heard, as paths: where the two differ. */
function HeardPaths({ patch, choices }: { readonly patch: Patch; readonly choices: NonNullable<Ask['choices']> }) {
  const patches = useMemo(() => choices.map((c) => applyEdits(patch, c.edits ?? [])), [patch, choices]);
  const end = useMemo(() => endsOf(buildGraph(patch))[0] ?? null, [patch]);
  return patches.map((p, i) => (
    <Box key={choices[i]?.text} sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 700 }}>{choices[i]?.text}</Box>
      <Path patch={p} at={end} covered={NOTHING} low />
    </Box>
  ));
}

type Ask = ShownExercise['exercise']['ask'];
