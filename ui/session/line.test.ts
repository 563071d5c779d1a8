import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { applyEdits } from '@/core';
import type { Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import type { PatchStep } from '@/wire/core';
import { Line } from './line';
import { PortWorker } from './portWorker';

/** What a worker of these tests answers: the patch that it holds, and how often it was asked. */
interface Answer {
  readonly version: number;
  readonly depth: number;
  readonly whole: boolean;
}

interface Remote {
  look(step: PatchStep): Promise<Answer>;
}

/** A worker whose answers are held back until a test lets them go. */
class Held extends PortWorker {
  static made: Held[] = [];
  readonly asked: PatchStep[] = [];
  private readonly waiting: (() => void)[] = [];
  private patch: Patch | null = null;

  constructor() {
    super({
      look: async (step: PatchStep): Promise<Answer> => {
        this.asked.push(step);
        this.patch = 'patch' in step ? step.patch : applyEdits(this.patch!, step.edits);
        const { patch } = this;
        await new Promise<void>((go) => this.waiting.push(go));
        const depth = Number(patch.modules[0]!.params!.amount);
        return { version: step.version, depth, whole: 'patch' in step };
      },
    });
    Held.made.push(this);
  }

  answer(): void {
    this.waiting.shift()?.();
  }
}

const base = patchOf({ a: ['attenuverter', { amount: 0 }], l: ['lfo'] }, ['l.out > a.in']);
const at = (amount: number): Patch => applyEdits(base, [{ do: 'set', module: 'a', param: 'amount', value: amount }]);

const opened: Line<Patch, Answer, Remote>[] = [];
function lineOf(worker: () => Held = () => new Held(), leave?: (worker: Worker) => void) {
  const told = { answers: [] as number[], failures: [] as string[], progress: [] as (number | null)[] };
  const line = new Line<Patch, Answer, Remote>({
    worker: () => worker() as unknown as Worker,
    ask: (remote, patch, stepTo) => remote.look(stepTo(patch)) as Promise<Answer>,
    onAnswer: (_, { depth }) => told.answers.push(depth),
    onFailure: (message) => told.failures.push(message),
    onProgress: (p) => told.progress.push(p),
    ...(leave && { leave }),
  });
  opened.push(line);
  return { line, told };
}
const asked = (n: number, worker = 0) => expect.poll(() => Held.made[worker]?.asked.length).toBe(n);

beforeEach(() => void (Held.made = []));
afterEach(() => {
  opened.splice(0).forEach((line) => line.close());
  vi.useRealTimers();
});

describe('a line of questions to one worker', () => {
  it('answers the latest only: what waits is replaced, and told as edits of what the worker holds', async () => {
    const { line, told } = lineOf();
    line.put(at(0.1));
    await asked(1);
    for (const amount of [0.2, 0.3, 0.4]) line.put(at(amount));
    Held.made[0]!.answer();
    await asked(2);
    Held.made[0]!.answer();
    await expect.poll(() => told.answers).toEqual([0.1, 0.4]);
    const [first, second] = Held.made[0]!.asked;
    expect(first).toMatchObject({ version: 1 });
    expect(second).toMatchObject({ version: 2, on: 1 });
    expect(applyEdits(at(0.1), 'edits' in second! ? second.edits : [])).toEqual(at(0.4));
    expect(Held.made).toHaveLength(1);
  });

  it('says which question waited and is not asked any more', async () => {
    const { line } = lineOf();
    expect([line.put(at(0.1)), line.waits]).toEqual([null, false]);
    expect([line.put(at(0.2)), line.waits]).toEqual([null, true]);
    expect(line.put(at(0.3))).toEqual(at(0.2));
    await asked(1);
    Held.made[0]!.answer();
    await asked(2);
    expect(line.waits).toBe(false);
  });

  it('asks afterwards only where nothing waits', async () => {
    const { line, told } = lineOf();
    line.put(at(0.1));
    await asked(1);
    line.put(at(0.2));
    line.afterwards(at(0.9));
    Held.made[0]!.answer();
    await asked(2);
    Held.made[0]!.answer();
    await expect.poll(() => told.answers).toEqual([0.1, 0.2]);
  });

  it('a worker that dies is told, replaced, and the next gets the whole patch', async () => {
    const { line, told } = lineOf();
    line.put(at(0.1));
    await asked(1);
    Held.made[0]!.die();
    await expect.poll(() => told.failures).toEqual(['The simulation stopped and was restarted.']);
    expect(Held.made[0]!.ended).toBe(true);
    line.put(at(0.5));
    await asked(1, 1);
    expect(Held.made[1]!.asked[0]).toHaveProperty('patch');
    Held.made[1]!.answer();
    await expect.poll(() => told.answers).toEqual([0.5]);
  });

  it('what is cancelled is no failure, and leaves nothing waiting', async () => {
    const { line, told } = lineOf();
    line.put(at(0.1));
    await asked(1);
    line.put(at(0.2));
    line.cancel();
    await expect.poll(() => Held.made[0]!.ended).toBe(true);
    expect(told).toMatchObject({ answers: [], failures: [] });
    expect(told.progress.at(-1)).toBeNull();
    line.put(at(0.3));
    await asked(1, 1);
    Held.made[1]!.answer();
    await expect.poll(() => told.answers).toEqual([0.3]);
  });

  it('one that says nothing for half a minute is hung; one that says how far it is, is not', async () => {
    const { line, told } = lineOf();
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    line.put(at(0.1));
    await vi.waitFor(() => expect(Held.made[0]?.asked.length).toBe(1));
    const port = Held.made[0] as unknown as { near: MessagePort };
    const says = (progress: number) =>
      port.near.dispatchEvent(new MessageEvent('message', { data: { progress } }) as never);
    vi.advanceTimersByTime(29_000);
    says(0.4);
    vi.advanceTimersByTime(29_000);
    expect(told).toMatchObject({ failures: [], progress: [0.4] });
    vi.advanceTimersByTime(1001);
    vi.useRealTimers();
    await expect.poll(() => told.failures).toEqual(['The simulation stopped responding and was restarted.']);
    expect(told.progress).toEqual([0.4, null]);
  });

  it('leaves its worker to the next where nothing runs, which begins with the whole patch; else ends it', async () => {
    const left: Held[] = [];
    const leave = (worker: Worker): void => void left.push(worker as unknown as Held);
    const first = lineOf(undefined, leave);
    first.line.put(at(0.1));
    await asked(1);
    Held.made[0]!.answer();
    await expect.poll(() => first.told.answers).toEqual([0.1]);
    first.line.close();
    expect(left).toEqual([Held.made[0]]);
    const second = lineOf(() => left.pop()!, leave);
    second.line.put(at(0.7));
    await asked(2);
    expect(Held.made[0]!.asked[1]).toMatchObject({ version: 1, patch: at(0.7) });
    Held.made[0]!.answer();
    await expect.poll(() => second.told.answers).toEqual([0.7]);
    expect(first.told.answers).toEqual([0.1]);
    second.line.put(at(0.8));
    await asked(3);
    second.line.close();
    expect(left).toEqual([]);
    expect(Held.made[0]!.ended).toBe(true);
  });

  it('once closed it asks and tells nothing more', async () => {
    const { line, told } = lineOf();
    line.put(at(0.1));
    await asked(1);
    line.close();
    line.put(at(0.2));
    await expect.poll(() => Held.made[0]!.ended).toBe(true);
    expect(Held.made).toHaveLength(1);
    expect(told).toMatchObject({ answers: [], failures: [] });
  });
});
