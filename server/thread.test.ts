import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Thread } from './beside/thread';

/** A thread that does as it is told by what it is given: answers, refuses, hangs, dies or ends. */
const PROGRAM = `
import { parentPort } from 'node:worker_threads';
parentPort.on('message', ({ n, ask }) => {
  const { way, value } = ask.with;
  const answer = (a) => parentPort.postMessage({ n, answer: a });
  if (way === 'answer') answer({ ok: true, value });
  if (way === 'late') setTimeout(() => answer({ ok: true, value }), 50);
  if (way === 'refuse') answer({ ok: false, status: 400, code: 'bad', message: 'No.', details: { value } });
  if (way === 'die') setTimeout(() => { throw new Error('fell over'); });
  if (way === 'end') process.exit(0);
});
`;

const home = process.cwd();
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-thread-'));
  mkdirSync(path.join(folder, 'dist'));
  writeFileSync(path.join(folder, 'dist', 'server-worker.mjs'), PROGRAM);
  process.chdir(folder);
});
afterEach(() => {
  process.chdir(home);
  rmSync(folder, { recursive: true, force: true });
});

/** Asks a thread to do so; what it answers, or the words of its refusal. */
function told(thread: Thread, way: string, value: unknown = null): Promise<unknown> {
  const asked = thread.run('read' as never, { way, value } as never) as Promise<unknown>;
  return asked.catch((error: { status: number; code: string; message: string; details: unknown }) => {
    const { status, code, message, details } = error;
    return { status, code, message, details };
  });
}
const beside = (why: string) => ({
  status: 500,
  code: 'worker',
  message: `The background worker ${why}. Nothing was changed; try again.`,
  details: null,
});

describe('a thread beside the server', () => {
  it('answers each question with its own answer, in whatever order they come', async () => {
    const thread = new Thread(0);
    const asked = ['late', 'answer', 'late', 'answer'].map((way, i) => told(thread, way, i));
    expect(await Promise.all(asked)).toEqual([0, 1, 2, 3]);
    await told(thread, 'end');
  });
  it('passes on a refusal as it is', async () => {
    const thread = new Thread(0);
    expect(await told(thread, 'refuse', 7)).toEqual({
      status: 400,
      code: 'bad',
      message: 'No.',
      details: { value: 7 },
    });
    expect(await told(thread, 'answer', 8)).toBe(8);
    await told(thread, 'end');
  });
  it.each([
    ['die', 'fell over'],
    ['end', 'ended'],
  ])('that should %s refuses all it was asked, and the next question gets another', async (way, why) => {
    const thread = new Thread(0);
    const lost = [told(thread, 'hang'), told(thread, way)];
    expect(await Promise.all(lost)).toEqual([beside(why), beside(why)]);
    expect(await told(thread, 'answer', 'again')).toBe('again');
    await told(thread, 'end');
  });
  it('that says nothing for too long is given up; one that answers in time is not', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      const thread = new Thread(1000);
      const lost = told(thread, 'hang');
      vi.advanceTimersByTime(1001);
      expect(await lost).toEqual(beside('took too long'));
      const asked = told(thread, 'late', 1);
      vi.advanceTimersByTime(999);
      expect(await asked).toBe(1);
      vi.advanceTimersByTime(999);
      expect(await told(thread, 'answer', 2)).toBe(2);
      await told(thread, 'end');
    } finally {
      vi.useRealTimers();
    }
  });
  it('where it was not built, the work is done here', async () => {
    rmSync(path.join(folder, 'dist'), { recursive: true });
    const asked = new Thread(0).run('read', { bytes: new TextEncoder().encode('{'), what: 'save' });
    await expect(asked).rejects.toMatchObject({ status: 400, code: 'bad-json' });
  });
});
