import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { applyEdits, predict, solve } from '@/core';
import type { Patch, Target } from '@/core';
import { patchOf } from '@/core/testing/patch';
import type { PatchStep, SolveReply, SolveRequest } from '@/wire/core';
import { createDesk } from './desk';
import { PortWorker } from './portWorker';
import { createSolving } from './solving';

/** The solver, which answers when a test lets it. */
class SlowSolver extends PortWorker {
  static made: SlowSolver[] = [];
  readonly asked: SolveRequest[] = [];
  private readonly waiting: (() => void)[] = [];
  private patch: Patch | null = null;

  constructor() {
    super({
      solve: async (step: PatchStep, request: SolveRequest): Promise<SolveReply> => {
        this.asked.push(request);
        const patch = 'patch' in step ? step.patch : applyEdits(this.patch!, step.edits);
        this.patch = patch;
        await new Promise<void>((go) => this.waiting.push(go));
        return { version: step.version, answer: solve(patch, request) };
      },
    });
    SlowSolver.made.push(this);
  }

  answer(): void {
    this.waiting.shift()?.();
  }
}

const wanted: Target = { at: 'f.cutoff', quantity: 'frequency', low: 200, high: 3200 };
const raised = (t: Target): Target => ('high' in t ? ({ ...t, high: Number(t.high) * 2 ** 0.05 } as Target) : t);

function opened() {
  const made = patchOf({ l: ['lfo'], o: ['offset', { amount: 0.2 }], f: ['filter', { cutoffHz: 400 }] }, [
    'l.out > o.in',
    'o.out > f.cutoff',
  ]);
  const patch: Patch = { ...made, targets: [wanted] };
  const desk = createDesk({ id: 'x', patch, saved: patch, revision: 1, savedAt: 'then' });
  const solving = createSolving(desk);
  const high = (): number =>
    Number(predict(desk.getState().patch, { cures: false }).readings.find((r) => r.at === 'f.cutoff')!.high);
  const asked = (n: number) => expect.poll(() => SlowSolver.made[0]?.asked.length).toBe(n);
  return { desk, high, asked, press: () => solving.getState().drag(wanted, raised), state: () => solving.getState() };
}

beforeEach(() => {
  SlowSolver.made = [];
  vi.stubGlobal('Worker', SlowSolver);
});
afterEach(() => vi.unstubAllGlobals());

describe('what is asked of the solver', () => {
  it('a hint that falls due never takes the place of what a hand asked for, and comes after it', async () => {
    const { high, asked, press, state, desk } = opened();
    press();
    await asked(1);
    press();
    state().suggest();
    SlowSolver.made[0]!.answer();
    await asked(2);
    SlowSolver.made[0]!.answer();
    await expect.poll(() => high() / (3200 * 2 ** 0.1)).toBeCloseTo(1, 5);
    await asked(3);
    SlowSolver.made[0]!.answer();
    await expect.poll(() => state().hint?.patch).toBe(desk.getState().patch);
    state().close();
  });

  it('a whole question that a hand replaces before it is begun is not waited for', async () => {
    const { asked, press, state } = opened();
    press();
    await asked(1);
    state().solve(false);
    expect(state().busy).toBe('solve');
    press();
    expect(state().busy).toBeNull();
    state().close();
  });
});
