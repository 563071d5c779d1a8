import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type { ImportsWorker } from '@/wire/imports';

/** A file that is read beside the page; `cancel` ends it at once. */
export interface Job<T> {
  readonly done: Promise<T>;
  cancel(): void;
}

export class JobCancelled extends Error {
  constructor() {
    super('Cancelled. Nothing was changed.');
  }
}

/** Runs one piece of work in a worker of its own, which ends with it. */
export function importJob<T>(
  work: (worker: Remote<ImportsWorker>) => Promise<T>,
  onProgress: (progress: number) => void = () => undefined,
): Job<T> {
  const worker = new Worker(new URL('@/workers/imports.worker.ts', import.meta.url), { type: 'module' });
  let stop: (error: Error) => void = () => undefined;
  const done = new Promise<T>((resolve, reject) => {
    stop = reject;
    worker.addEventListener('message', ({ data }: MessageEvent<{ readonly progress?: number }>) => {
      if (typeof data.progress === 'number') onProgress(data.progress);
    });
    worker.addEventListener('error', () => reject(new Error('Reading the file took more than this browser has.')));
    work(wrap<ImportsWorker>(worker)).then(resolve, reject);
  }).finally(() => worker.terminate());
  return { done, cancel: () => stop(new JobCancelled()) };
}
