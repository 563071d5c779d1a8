import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import { placeName, showNumber, withUnit } from '@/core';
import type { Diagnosis } from '@/core';
import { JobCancelled } from '@/ui/parts/workerJob';
import { ink } from '@/ui/theme/tokens';
import { Causes } from './Causes';
import { NextMeasurement } from './NextMeasurement';
import { diagnoseSession } from './diagnoseSession';
import { QUANTITY_NAMES } from './quantityNames';
import type { OpenSession } from './useSession';

interface Asked {
  /** The readings that it was asked with. */
  readonly of: string;
  readonly diagnosis: Diagnosis | null;
  readonly failure: string | null;
}

/** Which fault explains the readings; asked again by itself as readings come in, once it was asked. */
function useDiagnosis(open: OpenSession, asked: boolean) {
  const [wanted, setWanted] = useState(asked);
  const [state, setState] = useState<Asked | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const job = useRef<{ cancel(): void } | null>(null);
  const of = JSON.stringify(open.standing.map((r) => [r.id, r.value]));
  const latest = useRef(open);
  useEffect(() => {
    latest.current = open;
  });
  useEffect(() => {
    if (!wanted || latest.current.standing.length === 0) return undefined;
    const found = diagnoseSession(latest.current, setProgress);
    job.current = found;
    setProgress(0);
    let live = true;
    found.done
      .then((diagnosis) => live && setState({ of, diagnosis, failure: null }))
      .catch((error: unknown) => {
        if (live && !(error instanceof JobCancelled)) setState({ of, diagnosis: null, failure: String(error) });
        if (live && error instanceof JobCancelled) setWanted(false);
      })
      .finally(() => live && setProgress(null));
    return () => {
      live = false;
      found.cancel();
    };
  }, [of, wanted]);
  return {
    state,
    progress,
    wanted,
    ask: () => setWanted(true),
    cancel: () => job.current?.cancel(),
    close: () => {
      setWanted(false);
      setState(null);
    },
  };
}

export function FaultPanel({ open, asked }: { readonly open: OpenSession; readonly asked: boolean }) {
  const { state, progress, wanted, ask, cancel, close } = useDiagnosis(open, asked);
  const { standing } = open;
  if (standing.length === 0)
    return (
      <Box sx={{ pt: 1.5 }}>Take a few readings first: two or three outputs along the path are enough to start.</Box>
    );
  const diagnosis = state?.diagnosis;
  return (
    <Box sx={{ pt: 1.5 }}>
      {!wanted && (
        <Button color="primary" onClick={ask}>
          Find the fault
        </Button>
      )}
      {progress !== null && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <LinearProgress
            variant={progress > 0 ? 'determinate' : 'indeterminate'}
            value={100 * progress}
            aria-label="Searching for the fault"
            sx={{ flex: 1 }}
          />
          <Button onClick={cancel}>Cancel</Button>
        </Box>
      )}
      {state?.failure && <Alert severity="error">{state.failure}</Alert>}
      {diagnosis && (
        <Box data-diagnosis={diagnosis.consistent ? 'consistent' : 'fault'}>
          <Worst diagnosis={diagnosis} open={open} />
          {!diagnosis.consistent && <Causes open={open} causes={diagnosis.causes} onFound={close} />}
          {diagnosis.next && <NextMeasurement open={open} next={diagnosis.next} causes={diagnosis.causes} />}
          {diagnosis.text && <Box sx={{ mt: 1 }}>{diagnosis.text}</Box>}
        </Box>
      )}
    </Box>
  );
}

function Worst({
  diagnosis: { consistent, worst },
  open,
}: {
  readonly diagnosis: Diagnosis;
  readonly open: OpenSession;
}) {
  if (consistent)
    return (
      <Alert severity="success" sx={{ mb: 1 }}>
        The readings match the plan. No fault explains them better.
      </Alert>
    );
  if (!worst) return null;
  const unit = open.standing.find((r) => r.at === worst.at && r.quantity === worst.quantity)?.unit ?? 'V';
  return (
    <Box sx={{ mb: 1, color: ink.softInk }}>
      {`Worst reading: ${placeName(open.patch.modules, worst.at)}, ${QUANTITY_NAMES[worst.quantity]} ${withUnit(showNumber(worst.value, 2), unit)} (expected ${withUnit(showNumber(worst.expected, 2), unit)}).`}
    </Box>
  );
}
