const made = (): Worker => new Worker(new URL('@/workers/core.worker.ts', import.meta.url), { type: 'module' });

/** Workers that nobody asks now. */
const spare: Worker[] = [];
/** As many as an editor asks. */
const MOST_SPARE = 2;

function put(worker: Worker): void {
  // One that dies meanwhile, or never came up, is nobody's.
  const drop = (): void => {
    const at = spare.indexOf(worker);
    if (at >= 0) spare.splice(at, 1);
  };
  worker.addEventListener('error', drop, { once: true });
  spare.push(worker);
}

/** Starts a worker before there is anything to ask: it reads its script while the page is busy with its own. */
export function warmCore(): void {
  if (spare.length === 0) put(made());
}

/** A worker for the core's questions: one that is warm, else a new one. */
export const coreWorker = (): Worker => spare.pop() ?? made();

/** A worker that is asked no more, and has forgotten what it was asked: the next editor begins with it. */
export function leaveCore(worker: Worker): void {
  if (spare.length < MOST_SPARE) put(worker);
  else worker.terminate();
}
