'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { parseRack, printRack, withMeasured } from '@/core';
import type { Calibration as Found, LearnedTrait, Rack } from '@/core';
import { counted } from '@/ui/parts/counted';
import { useChosenRack, useRackDocument } from '@/ui/parts/chosenRack';
import { tell, tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import { SelectField } from '@/ui/parts/SelectField';
import { benchJob, JobCancelled } from '@/ui/parts/workerJob';
import type { SessionHead } from '@/wire/bench';
import { benchApi } from './benchApi';
import { CalibrationChart } from './CalibrationChart';
import { Learned } from './Learned';
import { NotLearned } from './NotLearned';

interface State {
  readonly key: string;
  readonly found: Found | null;
  readonly failure: string | null;
}

/** What all sessions at a rack say of it, asked for by hand: it takes a while. */
function useCalibration(id: string, rack: Rack | null, of: string) {
  const [state, setState] = useState<State | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const job = useRef<{ cancel(): void } | null>(null);
  const key = `${id} ${of}`;
  const run = async (): Promise<void> => {
    if (!rack) return;
    setProgress(0);
    try {
      const log = await benchApi.log(id, of);
      const work = benchJob((worker) => worker.calibrate(rack, log), setProgress);
      job.current = work;
      setState({ key, found: await work.done, failure: null });
    } catch (error) {
      if (!(error instanceof JobCancelled))
        setState({ key, found: null, failure: error instanceof Error ? error.message : String(error) });
    }
    setProgress(null);
  };
  return { state: state?.key === key ? state : null, progress, run, cancel: () => job.current?.cancel() };
}

/** The real rack, and every simulated one that sessions were held at. */
function sourcesOf(sessions: readonly SessionHead[]): (readonly [string, string])[] {
  const real = sessions.filter((s) => s.seed === null).length;
  const seeds = [...new Set(sessions.flatMap((s) => s.seed ?? []))];
  return [
    ['none', `${counted(real, 'session')} at the rack`],
    ...seeds.map((seed) => [String(seed), `Simulated rack ${seed}`] as const),
  ];
}

/** Writes what was taken over into a rack as it is stored now. */
async function writeTo(id: string, told: readonly LearnedTrait[]): Promise<string> {
  const stored = await rackApi.get(id);
  const read = parseRack(stored.rack);
  if (!read.ok) throw new Error('The rack could not be read.');
  const measured = withMeasured(read.value, told, new Date().toISOString());
  await rackApi.save(id, stored.revision, printRack(measured), crypto.randomUUID());
  return read.value.name;
}

/** What sessions say of a rack’s modules: their true scales, taken over one by one. */
export function Calibration() {
  const { racks, id: kept, choose } = useChosenRack();
  const id = kept || (racks[0]?.id ?? '');
  const { rack } = useRackDocument(id);
  const [of, setOf] = useState('none');
  const { data: sessions } = useQuery({ queryKey: ['sessions', false], queryFn: () => benchApi.list() });
  const racksHeld = sourcesOf((sessions ?? []).filter((s) => s.rackId === id));
  const { state, progress, run, cancel } = useCalibration(id, rack, of);
  const queries = useQueryClient();
  const takeOver = (told: readonly LearnedTrait[]): void =>
    void writeTo(id, told)
      .then(async (name) => {
        await Promise.all([
          queries.invalidateQueries({ queryKey: ['racks'] }),
          queries.invalidateQueries({ queryKey: ['rack', id] }),
        ]);
        tell(`${told.length} measured values applied to ${name}. Switch on “Modules as measured” to use them.`);
      })
      .catch(tellFault);
  if (racks.length === 0) return <p>Create a rack first: measured values belong to its channels.</p>;
  const found = state?.found;
  return (
    <Box sx={{ py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1 }}>
        <SelectField
          label="Rack"
          value={id}
          options={racks.map((r) => [r.id, r.name] as const)}
          onChange={choose}
          sx={{ width: 190 }}
        />
        <SelectField label="Which sessions" value={of} options={racksHeld} onChange={setOf} sx={{ width: 250 }} />
        <Button color="primary" disabled={!rack || progress !== null} onClick={() => void run()}>
          Calibrate
        </Button>
        {progress !== null && <Button onClick={cancel}>Cancel</Button>}
      </Box>
      {progress !== null && (
        <LinearProgress
          variant={progress > 0 ? 'determinate' : 'indeterminate'}
          value={100 * progress}
          aria-label="Calibrating"
          sx={{ mt: 1 }}
        />
      )}
      {state?.failure && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {state.failure}
        </Alert>
      )}
      {!state && progress === null && (
        <p>
          Calibration compares every reading from this rack with its prediction and estimates each module’s true gain,
          offset, pointer errors, times and rates. Nothing changes until you apply it.
        </p>
      )}
      {found && of !== 'none' && (
        <Alert severity="warning" sx={{ mt: 1 }} data-simulated>
          These values come from a simulated rack. Apply them to your own rack only to try it out.
        </Alert>
      )}
      {found && rack && found.fit.length === 0 && (
        <p>No readings of this rack’s modules yet. Measure some outputs in a session first.</p>
      )}
      {found && rack && found.fit.length > 0 && <Answer found={found} rack={rack} onTake={takeOver} />}
    </Box>
  );
}

interface AnswerProps {
  readonly found: Found;
  readonly rack: Rack;
  readonly onTake: (told: readonly LearnedTrait[]) => void;
}

const Answer = ({ found, rack, onTake }: AnswerProps) => (
  <Box
    sx={{
      display: 'grid',
      gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 480px' },
      gap: 3,
      mt: 1.5,
    }}
  >
    <Learned found={found} rack={rack} onTake={onTake} />
    <Box sx={{ minWidth: 0 }}>
      <CalibrationChart found={found} />
      <NotLearned found={found} rack={rack} />
    </Box>
  </Box>
);
