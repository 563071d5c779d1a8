import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type { CoreWorker, FullAnswer, FullRequest, PreviewAnswer, PreviewRequest } from '@/workers/protocol';

/** Previews are no nearer together than this, so that a turning knob has the machine to itself, milliseconds. */
const PACE = 66;
/** A worker that has not answered by then is taken for hung, milliseconds. */
const PATIENCE = 30_000;

/**
 * One worker that answers the latest question only: a question that comes while it works waits, and replaces one
 * that waits already. A worker that dies or hangs is replaced, and the question's promise is rejected.
 */
class Line<Q, A> {
  private worker: Worker | null = null;
  private remote: Remote<CoreWorker> | null = null;
  private busy = false;
  private waiting: Q | null = null;

  constructor(
    private readonly ask: (remote: Remote<CoreWorker>, question: Q) => Promise<A>,
    private readonly onAnswer: (question: Q, answer: A) => void,
    private readonly onFailure: (message: string) => void,
    private readonly pace = 0,
  ) {}

  put(question: Q): void {
    this.waiting = question;
    if (!this.busy) void this.next();
  }

  private open(): Remote<CoreWorker> {
    if (this.remote) return this.remote;
    this.worker = new Worker(new URL('../../workers/core.worker.ts', import.meta.url), { type: 'module' });
    this.remote = wrap<CoreWorker>(this.worker);
    return this.remote;
  }

  close(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
  }

  private async next(): Promise<void> {
    const question = this.waiting;
    if (question === null) return;
    this.waiting = null;
    this.busy = true;
    const rest = new Promise((resolve) => setTimeout(resolve, this.pace));
    try {
      const remote = this.open();
      this.onAnswer(question, await settled(this.worker as Worker, this.ask(remote, question)));
      await rest;
    } catch (error) {
      this.close();
      this.onFailure(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy = false;
    }
    void this.next();
  }
}

/** The answer, or a rejection when the worker fails or does not answer. */
function settled<A>(worker: Worker, answer: Promise<A>): Promise<A> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('The simulation did not answer and was restarted.')), PATIENCE);
    const died = (): void => reject(new Error('The simulation stopped and was restarted.'));
    worker.addEventListener('error', died, { once: true });
    answer.then(resolve, reject).finally(() => {
      clearTimeout(timer);
      worker.removeEventListener('error', died);
    });
  });
}

export interface CoreClient {
  preview(request: PreviewRequest): void;
  full(request: FullRequest): void;
  close(): void;
}

/** Two workers, so that a long run never holds up what is being turned. */
export function openCore(
  onPreview: (request: PreviewRequest, answer: PreviewAnswer) => void,
  onFull: (request: FullRequest, answer: FullAnswer) => void,
  onFailure: (message: string) => void,
): CoreClient {
  const preview = new Line<PreviewRequest, PreviewAnswer>((r, q) => r.preview(q), onPreview, onFailure, PACE);
  const full = new Line<FullRequest, FullAnswer>((r, q) => r.full(q), onFull, onFailure);
  return {
    preview: (request) => preview.put(request),
    full: (request) => full.put(request),
    close() {
      preview.close();
      full.close();
    },
  };
}
