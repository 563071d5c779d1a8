import { wrap } from 'comlink';
import type { Remote } from 'comlink';

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
