import { parentPort } from 'node:worker_threads';
import { runTask } from './tasks';
import type { Ask } from './tasks';

/** The thread beside the server's own. */
parentPort?.on('message', ({ n, ask }: { readonly n: number; readonly ask: Ask }) => {
  parentPort?.postMessage({ n, answer: runTask(ask) });
});
