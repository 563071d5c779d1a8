import { afterEach, beforeEach, expect, it, vi } from 'vitest';

/** Workers as they are made, without a program. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = [];
  ended = false;
  constructor() {
    super();
    FakeWorker.made.push(this);
  }
  terminate(): void {
    this.ended = true;
  }
}

beforeEach(() => {
  FakeWorker.made = [];
  vi.stubGlobal('Worker', FakeWorker);
  vi.resetModules();
});
afterEach(() => vi.unstubAllGlobals());

it('one worker is warm however often it is asked for, and is the first that is taken', async () => {
  const { warmCore, coreWorker } = await import('./coreWorker');
  warmCore();
  warmCore();
  expect(FakeWorker.made).toHaveLength(1);
  expect(coreWorker()).toBe(FakeWorker.made[0]);
  // The next is a new one: two lines never share a worker.
  expect(coreWorker()).toBe(FakeWorker.made[1]);
});

it('one that never came up is not given to anybody', async () => {
  const { warmCore, coreWorker } = await import('./coreWorker');
  warmCore();
  FakeWorker.made[0]!.dispatchEvent(new Event('error'));
  expect(coreWorker()).toBe(FakeWorker.made[1]);
  expect(FakeWorker.made).toHaveLength(2);
});

it('those that a desk leaves are the next desk’s, as many as one asks; one that dies meanwhile is nobody’s', async () => {
  const { coreWorker, leaveCore, warmCore } = await import('./coreWorker');
  const three = [coreWorker(), coreWorker(), coreWorker()];
  three.forEach((worker) => leaveCore(worker));
  expect(FakeWorker.made.map((w) => w.ended)).toEqual([false, false, true]);
  warmCore();
  expect(FakeWorker.made).toHaveLength(3);
  FakeWorker.made[1]!.dispatchEvent(new Event('error'));
  expect(coreWorker()).toBe(three[0]);
  expect(coreWorker()).toBe(FakeWorker.made[3]);
});
