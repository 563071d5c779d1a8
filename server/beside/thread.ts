import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { ApiError } from '../checks/errors';
import { runTask } from './tasks';
import type { Answer, Ask, Tasks } from './tasks';

const BUNDLE = 'server-worker.mjs';

/** The built thread; the program runs from its own folder. Null where it was not built, as in a test of a part. */
function bundled(): string | null {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), 'dist', BUNDLE);
  return process.env.FENVO_THREADS !== 'no' && existsSync(file) ? file : null;
}

/** Memory of one thread, MB: the heaviest patch needs a third of it. */
const LIMITS = { maxOldGenerationSizeMb: 384, maxYoungGenerationSizeMb: 16 };

interface Waiting {
  readonly resolve: (answer: Answer) => void;
  readonly timer: NodeJS.Timeout | null;
}

/** One thread that answers in order. One that dies or takes too long is replaced, and what it was asked is refused. */
export class Thread {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private n = 0;

  /** @param patience milliseconds until a task is taken for hung; 0 for never. */
  constructor(private readonly patience: number) {}

  async run<K extends keyof Tasks>(task: K, given: Parameters<Tasks[K]>[0]): Promise<ReturnType<Tasks[K]>> {
    const answer = await this.ask({ task, with: given } as Ask);
    if (answer.ok) return answer.value as ReturnType<Tasks[K]>;
    throw new ApiError(answer.status, answer.code, answer.message, answer.details);
  }

  private ask(ask: Ask): Promise<Answer> {
    const worker = this.open();
    if (!worker) return Promise.resolve(runTask(ask));
    const n = this.n++;
    // It keeps the program alive only while it works.
    worker.ref();
    return new Promise((resolve) => {
      const timer = this.patience > 0 ? setTimeout(() => this.fail('took too long'), this.patience) : null;
      this.waiting.set(n, { resolve, timer });
      worker.postMessage({ n, ask });
    });
  }

  private open(): Worker | null {
    const file = this.worker ? null : bundled();
    if (!this.worker && file !== null) {
      const worker = new Worker(/* turbopackIgnore: true */ file, { resourceLimits: LIMITS });
      worker.on('message', ({ n, answer }: { n: number; answer: Answer }) => this.settle(n, answer));
      worker.on('error', (error) => this.worker === worker && this.fail(error.message));
      worker.on('exit', () => this.worker === worker && this.fail('ended'));
      this.worker = worker;
    }
    return this.worker;
  }

  private settle(n: number, answer: Answer): void {
    const waiting = this.waiting.get(n);
    if (!waiting) return;
    this.waiting.delete(n);
    if (waiting.timer) clearTimeout(waiting.timer);
    if (this.waiting.size === 0) this.worker?.unref();
    waiting.resolve(answer);
  }

  private fail(why: string): void {
    const { worker } = this;
    this.worker = null;
    void worker?.terminate();
    const message = `The background worker ${why}. Nothing was changed; try again.`;
    for (const n of [...this.waiting.keys()])
      this.settle(n, { ok: false, status: 500, code: 'worker', message, details: null });
  }
}

const shared = globalThis as { fenvoThreads?: { readonly reader: Thread; readonly painter: Thread } };

/** One thread reads what comes in, another makes summaries, so that no save waits for a picture. */
export function threads(): { readonly reader: Thread; readonly painter: Thread } {
  shared.fenvoThreads ??= { reader: new Thread(0), painter: new Thread(120_000) };
  return shared.fenvoThreads;
}
