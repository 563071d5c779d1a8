import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type { PracticeWorker } from '@/wire/practiceJobs';

let running: Remote<PracticeWorker> | null = null;

/** Draws and marks beside the page: one worker for as long as the page is open, which remembers what it drew. */
export function practiceWorker(): Remote<PracticeWorker> {
  running ??= wrap<PracticeWorker>(
    new Worker(new URL('@/workers/practice.worker.ts', import.meta.url), { type: 'module' }),
  );
  return running;
}
