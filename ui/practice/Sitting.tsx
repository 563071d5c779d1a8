import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useEffect, useRef, useState } from 'react';
import { nextExercise, skillNamed } from '@/core/practice';
import type { Answer, Level, Mark, PracticeAnswer } from '@/core/practice';
import { tellFault } from '@/ui/parts/messages';
import { ink } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import type { ShownExercise } from '@/wire/practiceJobs';
import { ExerciseView } from './ExerciseView';
import { practiceWorker } from './practiceWorker';

/** What a sitting is of: what is due, or one skill at one level. */
export interface SittingOf {
  readonly only: string | null;
  readonly level: Level | null;
}

interface Props {
  readonly of: SittingOf;
  readonly answers: {
    readonly stored: StoredPractice | null;
    readonly add: (answer: PracticeAnswer) => void;
  };
  readonly onEnd: () => void;
}

/** So many exercises, or so long. */
const MOST = 12;
const LONGEST = 600_000;

type Wanted = Pick<PracticeAnswer, 'skill' | 'level' | 'seed'>;

function nextOf({ only, level }: SittingOf, answers: readonly PracticeAnswer[]): Wanted | null {
  if (only !== null && level !== null) {
    const seeds = answers.filter((a) => a.skill === only && a.level === level).map((a) => a.seed);
    return { skill: only, level, seed: Math.max(0, ...seeds) + 1 };
  }
  return nextExercise(answers, { now: new Date(), sound: false });
}

/** One exercise after the other; leaving at any moment loses nothing. */
export function Sitting({ of, answers, onEnd }: Props) {
  const [wanted, setWanted] = useState<Wanted | null>(() => nextOf(of, answers.stored?.answers ?? []));
  const [count, setCount] = useState(1);
  const [began] = useState(() => Date.now());
  const { shown, mark, submit, failure } = useExercise(wanted, answers.add);
  const next = (): void => {
    if (count >= MOST || Date.now() - began > LONGEST) return onEnd();
    setCount(count + 1);
    setWanted(nextOf(of, answers.stored?.answers ?? []));
  };
  const alike = (): void => {
    if (wanted) setWanted({ ...wanted, seed: wanted.seed + 1000 });
  };
  const skill = skillNamed(wanted?.skill ?? '');
  return (
    <Box sx={{ pt: 1.5 }} data-exercise={wanted ? `${wanted.skill} ${wanted.level} ${wanted.seed}` : ''}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 1 }}>
        <Box component="h1" sx={{ fontSize: 18, m: 0 }}>
          {skill?.text ?? 'Practice'}
        </Box>
        <Box sx={{ color: ink.softInk }}>{`level ${wanted?.level ?? ''} · ${count} of ${MOST}`}</Box>
        <Box sx={{ flex: 1 }} />
        <Button onClick={onEnd}>End sitting</Button>
      </Box>
      {failure && <Alert severity="error">{failure}</Alert>}
      {!shown && !failure && <Skeleton variant="rectangular" sx={{ height: 320 }} />}
      {shown && (
        <ExerciseView
          key={`${wanted?.skill} ${wanted?.seed}`}
          shown={shown}
          mark={mark}
          onAnswer={submit}
          onNext={next}
          onAlike={alike}
        />
      )}
    </Box>
  );
}

interface Current {
  readonly of: Wanted;
  readonly shown: ShownExercise;
  readonly mark: Mark | null;
}

/** Draws an exercise, marks its answer, and keeps how it went. */
function useExercise(wanted: Wanted | null, add: (answer: PracticeAnswer) => void) {
  const [current, setCurrent] = useState<Current | null>(null);
  const [failed, setFailed] = useState<{ readonly of: Wanted; readonly why: string } | null>(null);
  const since = useRef(0);
  useEffect(() => {
    if (!wanted) return;
    let live = true;
    practiceWorker()
      .exercise(wanted.skill, wanted.level, wanted.seed)
      .then((shown) => {
        if (!live) return;
        since.current = performance.now();
        setCurrent({ of: wanted, shown, mark: null });
      })
      .catch(
        (error: unknown) =>
          live && setFailed({ of: wanted, why: error instanceof Error ? error.message : String(error) }),
      );
    return () => {
      live = false;
    };
  }, [wanted]);
  const there = current?.of === wanted ? current : null;
  const submit = (answer: Answer): void => {
    if (!there || there.mark) return;
    const seconds = Math.min(86_400, (performance.now() - since.current) / 1000);
    practiceWorker()
      .mark(there.of, answer)
      .then((mark) => {
        setCurrent({ ...there, mark });
        add({
          id: crypto.randomUUID(),
          ...there.of,
          at: new Date().toISOString(),
          score: mark.score,
          ...(mark.slip !== null && { slip: mark.slip }),
          seconds: Number(seconds.toFixed(1)),
        });
      })
      .catch(tellFault);
  };
  const failure = failed?.of === wanted ? failed.why : null;
  return { shown: there?.shown ?? null, mark: there?.mark ?? null, submit, failure };
}
