import type { Remote } from 'comlink';
import type { ImportsWorker } from '@/wire/imports';
import { workerJob } from './workerJob';
import type { Job } from './workerJob';

/** A file that is read beside the page. */
export function importJob<T>(
  work: (worker: Remote<ImportsWorker>) => Promise<T>,
  onProgress?: (progress: number) => void,
): Job<T> {
  const worker = new Worker(new URL('@/workers/imports.worker.ts', import.meta.url), { type: 'module' });
  return workerJob(worker, work, 'Reading the file took more than this browser has.', onProgress);
}
