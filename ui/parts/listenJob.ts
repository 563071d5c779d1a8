import type { Remote } from 'comlink';
import { workerJob } from './workerJob';
import type { Job } from './workerJob';
import type { ListenWorker } from '@/wire/listen';

/** How a patch sounds, worked out beside the page. */
export function listenJob<T>(
  work: (worker: Remote<ListenWorker>) => Promise<T>,
  onProgress?: (progress: number) => void,
): Job<T> {
  const worker = new Worker(new URL('@/workers/listen.worker.ts', import.meta.url), { type: 'module' });
  return workerJob(worker, work, 'The sound took more than this browser has.', onProgress);
}
