import { useEffect, useState } from 'react';
import { JobCancelled } from '@/ui/parts/workerJob';
import { openFile } from './openFile';
import type { Opened } from './openFile';

/** A file that is being read beside the page: what came of it, how far it is, and how to stop it. */
export function useOpened() {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [job, setJob] = useState<ReturnType<typeof openFile> | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  useEffect(() => () => job?.cancel(), [job]);
  /** A mapping belongs to the scale that was opened before it. */
  const open = (now: Opened, before: Opened | null): void => {
    if (now.is !== 'map') return setOpened(now);
    if (before?.is === 'scale') return setOpened({ ...before, map: now.map });
    setFault(`${now.name}: a keyboard mapping needs its scale. Open the .scl file first.`);
  };
  const read = async (file: File): Promise<void> => {
    const reading = openFile(file, setProgress);
    setProgress(null);
    setJob(reading);
    setFault(null);
    const before = opened;
    setOpened(null);
    try {
      const result = await reading.done;
      if (result.ok) open(result.value, before);
      else setFault(result.errors);
    } catch (error) {
      if (!(error instanceof JobCancelled)) setFault(error instanceof Error ? error.message : String(error));
    }
    setJob((now) => (now === reading ? null : now));
  };
  return { opened, fault, progress, reading: job !== null, cancel: () => job?.cancel(), read };
}
