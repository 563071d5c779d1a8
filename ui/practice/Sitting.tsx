import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useEffect, useRef, useState } from 'react';
import { nextExercise, seedAfter, skillNamed } from '@/core/practice';
import type { Answer, KnownSlip, Level, Mark, PracticeAnswer } from '@/core/practice';
import { tellFault } from '@/ui/parts/messages';
import { OpenInEditor } from '@/ui/parts/OpenInEditor';
import { settings } from '@/ui/parts/settings';
import { ink } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import type { ShownExercise } from '@/wire/practiceJobs';
import { ExerciseView } from './ExerciseView';
import { practiceWorker } from './practiceWorker';

/** What a sitting is of: what is due, of all skills or of some; or one skill at one level. */
export interface SittingOf {
  readonly skills: readonly string[] | null;
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

function nextOf({ skills, level }: SittingOf, answers: readonly PracticeAnswer[]): Wanted | null {
  const [only] = skills ?? [];
  if (only !== undefined && level !== null) return { skill: only, level, seed: seedAfter(answers, only, level) };
  const isMeant = (name: string): boolean => skills === null || skills.includes(name);
  return nextExercise(answers, {
    now: new Date(),
    sound: settings.getState().byEar,
    only: (s) => isMeant(s.name),
  });
}

/** One exercise after the other; leaving at any moment loses nothing. */
export function Sitting({ of, answers, onEnd }: Props) {
  const known = answers.stored?.answers ?? [];
  const [wanted, setWanted] = useState<Wanted | null>(() => nextOf(of, known));
  const [count, setCount] = useState(1);
  const [began] = useState(() => Date.now());
  const [explained, setExplained] = useState<ReadonlySet<string>>(new Set());
  const skill = skillNamed(wanted?.skill ?? '');
  const isNew = wanted !== null && !explained.has(wanted.skill) && known.every((a) => a.skill !== wanted.skill);
  const next = (): void => {
    if (count >= MOST || Date.now() - began > LONGEST) return onEnd();
    setCount(count + 1);
    setWanted(nextOf(of, known));
  };
  const alike = (): void => {
    if (wanted) setWanted({ ...wanted, seed: seedAfter(known, wanted.skill, wanted.level) });
  };
  return (
    <Box sx={{ pt: 1.5 }} data-exercise={wanted && !isNew ? `${wanted.skill} ${wanted.level} ${wanted.seed}` : ''}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 1 }}>
        <Box component="h1" sx={{ fontSize: 18, m: 0 }}>
          {skill?.text ?? 'Practice'}
        </Box>
        <Box sx={{ color: ink.softInk }}>{`level ${wanted?.level ?? ''} · ${count} of ${MOST}`}</Box>
        <Box sx={{ flex: 1 }} />
        <Button onClick={onEnd}>End sitting</Button>
      </Box>
      {wanted && isNew && (
        <Example
          key={wanted.skill}
          skill={wanted.skill}
          level={wanted.level}
          onDone={() => setExplained(new Set([...explained, wanted.skill]))}
        />
      )}
      {wanted && !isNew && (
        <Exercise
          key={`${wanted.skill} ${wanted.level} ${wanted.seed}`}
          wanted={wanted}
          add={answers.add}
          onNext={next}
          onAlike={alike}
        />
      )}
      {!wanted && <Box sx={{ color: ink.softInk }}>Nothing to practise here.</Box>}
    </Box>
  );
}

const Coming = () => <Skeleton variant="rectangular" sx={{ height: 320 }} />;

/** What the worker is asked once, and why it could not answer. */
function useAsked<T>(ask: () => Promise<T>): { readonly got: T | null; readonly failure: string | null } {
  const [state, setState] = useState<{ readonly got: T | null; readonly failure: string | null }>({
    got: null,
    failure: null,
  });
  const first = useRef(ask);
  useEffect(() => {
    let live = true;
    first
      .current()
      .then((got) => live && setState({ got, failure: null }))
      .catch(
        (error: unknown) =>
          live && setState({ got: null, failure: error instanceof Error ? error.message : String(error) }),
      );
    return () => {
      live = false;
    };
  }, []);
  return state;
}

interface ExampleProps {
  readonly skill: string;
  readonly level: Level;
  readonly onDone: () => void;
}

/** A new skill begins with one that is worked out: the strip uncovers stage by stage. */
function Example({ skill, level, onDone }: ExampleProps) {
  const { got, failure } = useAsked(() => practiceWorker().example(skill, level));
  if (failure !== null) return <Alert severity="error">{failure}</Alert>;
  if (!got) return <Coming />;
  return (
    <ExerciseView shown={got.shown} mark={got.mark} example onAnswer={() => undefined}>
      <Button variant="contained" color="primary" autoFocus onClick={onDone}>
        Now you
      </Button>
    </ExerciseView>
  );
}

interface ExerciseProps {
  readonly wanted: Wanted;
  readonly add: (answer: PracticeAnswer) => void;
  readonly onNext: () => void;
  readonly onAlike: () => void;
}

/** Draws an exercise, marks its answer, and keeps how it went. */
function Exercise({ wanted, add, onNext, onAlike }: ExerciseProps) {
  const since = useRef(0);
  const { got: shown, failure } = useAsked<ShownExercise>(() =>
    practiceWorker()
      .exercise(wanted.skill, wanted.level, wanted.seed)
      .finally(() => {
        since.current = performance.now();
      }),
  );
  const [told, setTold] = useState<{ readonly mark: Mark; readonly slips: readonly KnownSlip[] } | null>(null);
  const submit = (answer: Answer): void => {
    if (told) return;
    const seconds = Math.min(86_400, (performance.now() - since.current) / 1000);
    practiceWorker()
      .mark(wanted, answer)
      .then((marked) => {
        setTold(marked);
        const { score, slip } = marked.mark;
        add({
          id: crypto.randomUUID(),
          ...wanted,
          at: new Date().toISOString(),
          score,
          ...(slip !== null && { slip }),
          seconds: Number(seconds.toFixed(1)),
        });
      })
      .catch(tellFault);
  };
  if (failure !== null) return <Alert severity="error">{failure}</Alert>;
  if (!shown) return <Coming />;
  return (
    <ExerciseView shown={shown} mark={told?.mark ?? null} slips={told?.slips ?? []} onAnswer={submit}>
      <Button variant="contained" color="primary" autoFocus onClick={onNext}>
        Next
      </Button>
      <Button onClick={onAlike}>Another like this</Button>
      <OpenInEditor patch={() => shown.exercise.patch} />
    </ExerciseView>
  );
}
