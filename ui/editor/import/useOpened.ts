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
  const read = async (file: File): Promise<void> => {
    const reading = openFile(file, setProgress);
    setProgress(null);
    setJob(reading);
    setFault(null);
    setOpened(null);
    try {
      const result = await reading.done;
      if (result.ok) setOpened(result.value);
      else setFault(result.errors);
    } catch (error) {
      if (!(error instanceof JobCancelled)) setFault(error instanceof Error ? error.message : String(error));
    }
    setJob((now) => (now === reading ? null : now));
  };
  return { opened, fault, progress, reading: job !== null, cancel: () => job?.cancel(), read };
}
