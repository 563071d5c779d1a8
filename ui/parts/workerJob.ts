import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type { BenchWorker } from '@/wire/benchJobs';
import type { ImportsWorker } from '@/wire/imports';
import type { ListenWorker } from '@/wire/listen';

/** Work beside the page; `cancel` ends it at once. */
export interface Job<T> {
  readonly done: Promise<T>;
  cancel(): void;
}

export class JobCancelled extends Error {
  constructor() {
    super('Cancelled. Nothing was changed.');
  }
}

/**
 * Runs one piece of work in a worker of its own, which ends with it.
 *
 * @param broken what is said where the worker itself comes to an end.
 */
export function workerJob<W, T>(
  worker: Worker,
  work: (worker: Remote<W>) => Promise<T>,
  broken: string,
  onProgress: (progress: number) => void = () => undefined,
): Job<T> {
  let stop: (error: Error) => void = () => undefined;
  const done = new Promise<T>((resolve, reject) => {
    stop = reject;
    worker.addEventListener('message', ({ data }: MessageEvent<{ readonly progress?: number }>) => {
      if (typeof data.progress === 'number') onProgress(data.progress);
    });
    worker.addEventListener('error', () => reject(new Error(broken)));
    work(wrap<W>(worker)).then(resolve, reject);
  }).finally(() => worker.terminate());
  return { done, cancel: () => stop(new JobCancelled()) };
}

/** A file that is read beside the page. */
export function importJob<T>(
  work: (worker: Remote<ImportsWorker>) => Promise<T>,
  onProgress?: (progress: number) => void,
): Job<T> {
  const worker = new Worker(new URL('@/workers/imports.worker.ts', import.meta.url), { type: 'module' });
  return workerJob(worker, work, 'Not enough memory to read this file.', onProgress);
}

/** How a patch sounds, worked out beside the page. */
export function listenJob<T>(
  work: (worker: Remote<ListenWorker>) => Promise<T>,
  onProgress?: (progress: number) => void,
): Job<T> {
  const worker = new Worker(new URL('@/workers/listen.worker.ts', import.meta.url), { type: 'module' });
  return workerJob(worker, work, 'The sound took more than this browser has.', onProgress);
}

/** What readings tell, worked out beside the page. */
export function benchJob<T>(
  work: (worker: Remote<BenchWorker>) => Promise<T>,
  onProgress?: (progress: number) => void,
): Job<T> {
  const worker = new Worker(new URL('@/workers/bench.worker.ts', import.meta.url), { type: 'module' });
  return workerJob(worker, work, 'This took more memory than the browser has.', onProgress);
}
