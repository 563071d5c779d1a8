const made = (): Worker => new Worker(new URL('@/workers/core.worker.ts', import.meta.url), { type: 'module' });

let spare: Worker | null = null;

/** Starts a worker before there is anything to ask: it reads its script while the page is busy with its own. */
export function warmCore(): void {
  if (spare) return;
  const worker = made();
  // One that never came up is nobody's.
  worker.addEventListener('error', () => {
    if (spare === worker) spare = null;
  });
  spare = worker;
}

/** A worker for the core's questions: the one that is warm, else a new one. */
export function coreWorker(): Worker {
  const worker = spare ?? made();
  spare = null;
  return worker;
}
