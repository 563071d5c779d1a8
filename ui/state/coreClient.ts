import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type {
  CoreWorker,
  CuresAnswer,
  FullAnswer,
  FullRequest,
  PreviewAnswer,
  PreviewRequest,
} from '@/workers/protocol';

/** Previews are no nearer together than this, so that a turning knob has the machine to itself, milliseconds. */
const PACE = 66;
/** A worker that says nothing for so long, not even how far it is, is taken for hung, milliseconds. */
const PATIENCE = 30_000;

/** How far a long job is, 0..1; null when none runs. */
export type Progress = number | null;

interface Pending {
  readonly fail: (error: Error) => void;
  timer: ReturnType<typeof setTimeout>;
}

/**
 * One worker that answers the latest question only: a question that comes while it works waits, and replaces one
 * that waits already. A worker that dies or hangs is replaced, and the question's promise is rejected; one that is only
 * long says how far it is, and can be cancelled.
 */
class Line<Q, A> {
  private worker: Worker | null = null;
  private remote: Remote<CoreWorker> | null = null;
  private busy = false;
  private closed = false;
  private waiting: Q | null = null;
  private pending: Pending | null = null;

  constructor(
    private readonly ask: (remote: Remote<CoreWorker>, question: Q) => Promise<A>,
    private readonly onAnswer: (question: Q, answer: A) => void,
    private readonly onFailure: (message: string) => void,
    private readonly pace = 0,
    private readonly onProgress: (progress: Progress) => void = () => undefined,
  ) {}

  put(question: Q): void {
    if (this.closed) return;
    this.waiting = question;
    if (!this.busy) void this.next();
  }

  /** Asks only if nothing else waits. */
  afterwards(question: Q): void {
    if (this.waiting === null) this.put(question);
  }

  /** Ends what runs; what is asked next gets a new worker. */
  cancel(): void {
    this.waiting = null;
    this.pending?.fail(new Cancelled());
  }

  close(): void {
    this.closed = true;
    this.waiting = null;
    this.pending?.fail(new Cancelled());
    this.end();
  }

  private open(): Remote<CoreWorker> {
    if (this.remote) return this.remote;
    this.worker = new Worker(new URL('../../workers/core.worker.ts', import.meta.url), { type: 'module' });
    this.worker.addEventListener('message', this.hear);
    this.worker.addEventListener('error', this.die);
    this.remote = wrap<CoreWorker>(this.worker);
    return this.remote;
  }

  private readonly die = (): void => this.pending?.fail(new Error('The simulation stopped and was restarted.'));

  private readonly hear = ({ data }: MessageEvent<{ readonly progress?: number }>): void => {
    if (typeof data.progress !== 'number' || !this.pending) return;
    clearTimeout(this.pending.timer);
    this.pending.timer = this.patience();
    this.onProgress(data.progress);
  };

  private patience(): ReturnType<typeof setTimeout> {
    const hung = (): void => this.pending?.fail(new Error('The simulation did not answer and was restarted.'));
    return setTimeout(hung, PATIENCE);
  }

  private end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
  }

  private settled(answer: Promise<A>): Promise<A> {
    return new Promise<A>((resolve, reject) => {
      this.pending = { fail: reject, timer: this.patience() };
      answer.then(resolve, reject);
    }).finally(() => {
      clearTimeout(this.pending?.timer);
      this.pending = null;
      this.onProgress(null);
    });
  }

  private async next(): Promise<void> {
    const question = this.waiting;
    if (question === null || this.closed) return;
    this.waiting = null;
    this.busy = true;
    const rest = new Promise((resolve) => setTimeout(resolve, this.pace));
    try {
      const answer = await this.settled(this.ask(this.open(), question));
      if (this.closed) return;
      this.onAnswer(question, answer);
      await rest;
    } catch (error) {
      this.end();
      if (!this.closed && !(error instanceof Cancelled))
        this.onFailure(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy = false;
    }
    void this.next();
  }
}

class Cancelled extends Error {}

export interface CoreClient {
  preview(request: PreviewRequest): void;
  full(request: FullRequest): void;
  /** Ends a long run. */
  cancel(): void;
  close(): void;
}

export interface CoreEvents {
  readonly preview: (request: PreviewRequest, answer: PreviewAnswer) => void;
  readonly full: (request: FullRequest, answer: FullAnswer) => void;
  /** The findings of the last whole run, with their cures checked. */
  readonly cures: (request: FullRequest, answer: CuresAnswer) => void;
  readonly failure: (message: string) => void;
  readonly progress: (progress: Progress) => void;
}

/** Two workers, so that a long run never holds up what is being turned. */
export function openCore(on: CoreEvents): CoreClient {
  const preview = new Line<PreviewRequest, PreviewAnswer>((r, q) => r.preview(q), on.preview, on.failure, PACE);
  const full = new Line<FullRequest | 'cures', FullAnswer | CuresAnswer>(
    (r, q) => (q === 'cures' ? r.cures() : r.full(q)),
    (q, answer) => {
      if (q === 'cures' || !('pictures' in answer)) {
        if (asked && !('pictures' in answer)) on.cures(asked, answer);
        return;
      }
      asked = q;
      on.full(q, answer);
      // Only while nothing else was asked: what is asked next takes its place.
      if (answer.prediction.findings.length > 0) full.afterwards('cures');
    },
    on.failure,
    0,
    on.progress,
  );
  let asked: FullRequest | null = null;
  return {
    preview: (request) => preview.put(request),
    full: (request) => full.put(request),
    cancel: () => full.cancel(),
    close() {
      preview.close();
      full.close();
    },
  };
}
