import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { editsBetween } from '@/core';
import type { Patch } from '@/core';
import type { PatchStep } from '@/wire/core';

/** How long a worker may go without a word, not even of progress, before it counts as hung, milliseconds. */
const PATIENCE = 30_000;

/** How far a long job is, 0..1; null when none runs. */
export type Progress = number | null;

interface Pending {
  readonly fail: (error: Error) => void;
  timer: ReturnType<typeof setTimeout>;
}

class Cancelled extends Error {}

const isMeasured = (patch: Patch): boolean => patch.modules.some((m) => m.real);

interface LineOptions<Q, A, W> {
  /** A new worker. */
  readonly worker: () => Worker;
  readonly ask: (remote: Remote<W>, question: Q, stepTo: (patch: Patch) => PatchStep) => Promise<A>;
  readonly onAnswer: (question: Q, answer: A) => void;
  readonly onFailure: (message: string) => void;
  readonly onProgress?: (progress: Progress) => void;
  /** Questions are no nearer together than this, milliseconds. */
  readonly pace?: number;
  /** Takes a worker that answered all it was asked, when the line closes; else it is ended. */
  readonly leave?: (worker: Worker, remote: Remote<W>) => void;
}

/** The way to a worker is one as long as it lives: where a second is made, the first is torn down behind its back. */
const remotes = new WeakMap<Worker, unknown>();

function remoteOf<W>(worker: Worker): Remote<W> {
  const known = remotes.get(worker) as Remote<W> | undefined;
  if (known) return known;
  const remote = wrap<W>(worker);
  remotes.set(worker, remote);
  return remote;
}

/**
 * One worker that answers the latest question only: a question that comes while it works waits, and replaces one
 * that waits already. It is told the patch once, and edits after. A worker that dies or hangs is replaced, and the
 * question's promise is rejected; one that is only long says how far it is, and can be cancelled. An answer for another
 * version than the one last asked about is dropped.
 */
export class Line<Q, A extends { readonly version: number }, W> {
  private worker: Worker | null = null;
  private remote: Remote<W> | null = null;
  private held: { readonly version: number; readonly patch: Patch } | null = null;
  private versions = 0;
  private busy = false;
  private closed = false;
  private waiting: Q | null = null;
  private pending: Pending | null = null;

  constructor(private readonly options: LineOptions<Q, A, W>) {}

  /** @returns the question that waited, and is not asked any more. */
  put(question: Q): Q | null {
    if (this.closed) return null;
    const replaced = this.waiting;
    this.waiting = question;
    if (!this.busy) void this.next();
    return replaced;
  }

  /** Whether a question waits for the one before it. */
  get waits(): boolean {
    return this.waiting !== null;
  }

  /** Asks only if nothing else waits. */
  afterwards(question: Q): void {
    if (!this.waits) this.put(question);
  }

  /** Ends what runs; what is asked next gets a new worker. */
  cancel(): void {
    this.waiting = null;
    this.pending?.fail(new Cancelled());
  }

  close(): void {
    this.closed = true;
    this.waiting = null;
    const { worker, remote } = this;
    const { leave } = this.options;
    if (this.pending || !worker || !remote || !leave) {
      this.pending?.fail(new Cancelled());
      return this.end();
    }
    worker.removeEventListener('message', this.hear);
    worker.removeEventListener('error', this.die);
    leave(worker, remote);
  }

  private open(): Remote<W> {
    if (this.remote) return this.remote;
    this.worker = this.options.worker();
    this.worker.addEventListener('message', this.hear);
    this.worker.addEventListener('error', this.die);
    this.remote = remoteOf<W>(this.worker);
    return this.remote;
  }

  private readonly stepTo = (patch: Patch): PatchStep => {
    const before = this.held;
    const version = before?.patch === patch ? before.version : ++this.versions;
    this.held = { version, patch };
    // No edit says what a rack’s modules really are.
    const whole = !before || isMeasured(before.patch) || isMeasured(patch);
    return whole ? { version, patch } : { version, on: before.version, edits: editsBetween(before.patch, patch) };
  };

  private readonly die = (): void => this.pending?.fail(new Error('The simulation stopped and was restarted.'));

  private readonly hear = ({ data }: MessageEvent<{ readonly progress?: number }>): void => {
    if (typeof data.progress !== 'number' || !this.pending) return;
    clearTimeout(this.pending.timer);
    this.pending.timer = this.patience();
    this.options.onProgress?.(data.progress);
  };

  private patience(): ReturnType<typeof setTimeout> {
    const hung = (): void => this.pending?.fail(new Error('The simulation stopped responding and was restarted.'));
    return setTimeout(hung, PATIENCE);
  }

  private end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.held = null;
  }

  private settled(answer: Promise<A>): Promise<A> {
    return new Promise<A>((resolve, reject) => {
      this.pending = { fail: reject, timer: this.patience() };
      answer.then(resolve, reject);
    }).finally(() => {
      clearTimeout(this.pending?.timer);
      this.pending = null;
      this.options.onProgress?.(null);
    });
  }

  private async next(): Promise<void> {
    const question = this.waiting;
    if (question === null || this.closed) return;
    this.waiting = null;
    this.busy = true;
    const rest = new Promise((resolve) => setTimeout(resolve, this.options.pace ?? 0));
    try {
      const answer = await this.settled(this.options.ask(this.open(), question, this.stepTo));
      if (this.closed) return;
      if (answer.version === this.held?.version) this.options.onAnswer(question, answer);
      await rest;
    } catch (error) {
      this.end();
      if (!this.closed && !(error instanceof Cancelled))
        this.options.onFailure(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy = false;
    }
    void this.next();
  }
}
