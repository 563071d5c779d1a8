import { describe, expect, it } from 'vitest';
import { applyEdits, blank } from '@/core';
import type { Patch } from '@/core';
import { Recorder } from './recorder';

const patch: Patch = { ...blank, modules: [{ id: 'fader', kind: 'constant' }] };
const turned = applyEdits(patch, [{ do: 'set', module: 'fader', param: 'volts', value: 2 }]);

describe('a recorder', () => {
  it('counts in on the beats of the tempo, and begins on one', () => {
    const recorder = new Recorder();
    // At 120 bpm a beat is half a second; the first tick needs time to reach the sound thread.
    expect(recorder.begin(3.1, 120, 4)).toEqual([3.5, 4, 4.5, 5]);
    expect(recorder.counts(5.4)).toBe(true);
    expect(recorder.counts(5.5)).toBe(false);
    expect(new Recorder().begin(3.45, 120, 4)[0]).toBe(4);
    expect(new Recorder().begin(3.1, 120, 0)).toEqual([]);
  });
  it('waits after its end for its last moves to be heard, and records none after', () => {
    const recorder = new Recorder();
    recorder.begin(1, 120, 0);
    recorder.note(patch, turned, 1, 1.5);
    expect([...recorder.moved]).toEqual(['fader.volts']);
    recorder.end(2);
    expect([recorder.runs, recorder.waits, recorder.moved.size]).toEqual([false, true, 0]);
    recorder.note(turned, patch, 2, 2.1);
    recorder.heard(1, 1.4);
    expect(recorder.waits).toBe(false);
    expect(recorder.taken()).toMatchObject({ ended: 2, moves: [{ begins: 1.4, value: 2 }] });
    expect(recorder.taken()).toBeNull();
  });
  it('of nothing takes nothing', () => {
    const recorder = new Recorder();
    recorder.begin(1, 120, 0);
    expect(recorder.taken()).toBeNull();
    recorder.end(2);
    expect(recorder.taken()).toBeNull();
    expect(recorder.isEnded).toBe(false);
  });
});
