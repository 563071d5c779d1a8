'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { parsePatch } from '@/core';
import type { Patch } from '@/core';
import type { Answer, Mark, PatchQuestion } from '@/core/practice';
import { api } from '@/ui/parts/api';
import { counted } from '@/ui/parts/counted';
import { LostPage } from '@/ui/parts/LostPage';
import { tellFault } from '@/ui/parts/messages';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SiteHead } from '@/ui/parts/SiteHead';
import { ink } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';
import { ExerciseView } from './ExerciseView';
import { practiceWorker } from './practiceWorker';

interface Asked {
  readonly patch: Patch;
  readonly questions: readonly PatchQuestion[];
  readonly given: ShownExercise['given'];
}

async function ask(id: string): Promise<Asked> {
  const read = parsePatch((await api.get(id)).patch);
  if (!read.ok) throw new Error(read.errors[0]?.message ?? 'It could not be read.');
  // What was pinned or set aside is not asked about.
  const patch = { ...read.value, probes: [], targets: [], variants: [] };
  return { patch, ...(await practiceWorker().own(patch)) };
}

/** A patch of one’s own, its readings covered, asked about stage by stage. */
export function OwnPatchScreen({ id }: { readonly id: string }) {
  const { data, error } = useQuery({
    queryKey: ['own-practice', id],
    queryFn: () => ask(id),
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  if (error) return <LostPage title="This patch could not be practised" says={error.message} />;
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: 'auto', pb: 6 }}>
      <SiteHead here="/practice" />
      <Box sx={{ px: 2, pt: 1.5 }}>
        {data ? <Questions id={id} {...data} /> : <Skeleton variant="rectangular" sx={{ height: 320 }} />}
      </Box>
    </Box>
  );
}

function Questions({ id, patch, questions, given }: Asked & { readonly id: string }) {
  const [at, setAt] = useState(0);
  const [marks, setMarks] = useState<readonly Mark[]>([]);
  const mark = marks[at] ?? null;
  const question = questions[at];
  const right = marks.filter((m) => m.right).length;
  const submit = (answer: Answer): void =>
    void practiceWorker()
      .markOwn(at, answer)
      .then((told) => setMarks([...marks.slice(0, at), told]))
      .catch(tellFault);
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 1 }}>
        <Box component="h1" sx={{ fontSize: 18, m: 0 }}>
          {patch.name}
        </Box>
        {question && <Box sx={{ color: ink.softInk }}>{`${at + 1} of ${questions.length}`}</Box>}
        <Box sx={{ flex: 1 }} />
        <Box component={SafeLink} href={`/patches/${encodeURIComponent(id)}`} sx={{ color: ink.wanted }}>
          Open in editor
        </Box>
      </Box>
      {question && (
        <ExerciseView
          key={at}
          shown={{ exercise: { skill: 'own', level: 1, seed: 0, patch, ask: question.ask }, given, faults: [] }}
          mark={mark}
          onAnswer={submit}
        >
          <Button variant="contained" color="primary" autoFocus onClick={() => setAt(at + 1)}>
            Next
          </Button>
        </ExerciseView>
      )}
      {!question && questions.length === 0 && (
        <Alert severity="info">Nothing in this patch reaches a destination yet, so there is nothing to predict.</Alert>
      )}
      {!question && questions.length > 0 && (
        <Box role="status" data-own-end>
          <Box sx={{ fontSize: 16, mb: 1.5 }}>{`${right} of ${counted(questions.length, 'question')} right.`}</Box>
          <Button
            variant="contained"
            color="primary"
            onClick={() => {
              setMarks([]);
              setAt(0);
            }}
          >
            Once more
          </Button>
        </Box>
      )}
    </>
  );
}
