import { describe, expect, it } from 'vitest';
import { buildGraph } from '../graph/graph';
import { patchOf } from '../testing/patch';
import { auditionable, auditioned } from './auditioned';
import { LiveEngine } from './engine';
import { graphAt } from './player';
import { testVoice } from './testVoice';

const patch = patchOf(
  {
    slow: ['lfo'],
    fader: ['constant', { volts: 3 }],
    clock: ['clock'],
    shape: ['envelope'],
    mix: ['mixer'],
    o: ['oscillator'],
    f: ['filter'],
    a: ['vca', { cvAmount: 1 }],
    out: ['lineOut'],
  },
  [
    'slow.out > mix.in1',
    'fader.out > mix.in2',
    'mix.out > f.cutoff',
    'fader.out > o.pitch',
    'clock.out > shape.gate',
    'shape.out > a.cv',
    'o.saw > f.in',
    'f.lowpass > a.in',
    'a.out > out.left',
  ],
);
const heard = (muted: readonly string[], soloed: readonly string[] = []): string[] => {
  const made = auditioned(patch, patch, { muted: new Set(muted), soloed: new Set(soloed) });
  return patch.cables.filter((c) => !made.cables.includes(c)).map((c) => `${c.from} > ${c.to}`);
};

describe('what is muted or heard alone', () => {
  it('is offered: destinations that something drives, and what drives them', () => {
    expect(auditionable(buildGraph(patch))).toEqual({
      ends: ['o.pitch', 'f.cutoff', 'a.cv', 'out.left'],
      sources: ['slow', 'fader', 'clock', 'shape', 'o'],
    });
  });
  it('is the very patch where nothing is', () => {
    expect(auditioned(patch, patch, { muted: new Set(), soloed: new Set() })).toBe(patch);
  });
  it.each([
    ['a muted destination', ['f.cutoff'], [], ['mix.out > f.cutoff']],
    ['a muted source', ['fader'], [], ['fader.out > mix.in2', 'fader.out > o.pitch']],
    ['both', ['f.cutoff', 'slow'], [], ['slow.out > mix.in1', 'mix.out > f.cutoff']],
    // Levels and ways out stay: without them nothing is heard.
    ['a soloed destination', [], ['f.cutoff'], ['fader.out > o.pitch']],
    ['two soloed destinations', [], ['f.cutoff', 'o.pitch'], []],
    ['a soloed source', [], ['slow'], ['fader.out > mix.in2', 'fader.out > o.pitch']],
    ['a soloed source, its destination muted', ['f.cutoff'], ['slow'], ['fader.out > mix.in2', 'mix.out > f.cutoff', 'fader.out > o.pitch']], // prettier-ignore
    ['a muted level', ['a.cv'], [], ['shape.out > a.cv']],
  ])('%s', (_, muted, soloed, pulled) => {
    expect(heard(muted, soloed).sort()).toEqual([...pulled].sort());
  });
  it('gets 0 V, or what is built in there', () => {
    const made = auditioned(patch, patch, { muted: new Set(['f.cutoff']), soloed: new Set() });
    const engine = new LiveEngine(graphAt(made, 48_000));
    engine.advance();
    const cutoff = buildGraph(made)
      .modules.find((m) => m.id === 'f')!
      .inputs.find((s) => s.socket === 'f.cutoff')!;
    expect(cutoff.driver).toEqual({ type: 'volts', volts: 0 });
    expect(engine.buffer('mix.out').some((v) => v !== 0)).toBe(true);
  });
  it('takes away what is normalled there', () => {
    const normalled = {
      ...patch,
      cables: patch.cables.filter((c) => c.to !== 'f.cutoff'),
      normals: [{ to: 'f.cutoff', from: 'slow.out' }],
    };
    const made = auditioned(normalled, normalled, { muted: new Set(['f.cutoff']), soloed: new Set() });
    expect(made.normals).toEqual([]);
  });
  it('is silenced behind a test voice, too', () => {
    const bare = patchOf({ slow: ['lfo'], p: ['parameter'] }, ['slow.out > p.cv']);
    const voice = testVoice(buildGraph(bare), 'p.cv')!;
    const before = voice.patch.cables.filter((c) => c.from === 'slow.out').length;
    expect(before).toBeGreaterThan(1);
    const made = auditioned(voice.patch, bare, { muted: new Set(['p.cv']), soloed: new Set() });
    expect(made.cables.filter((c) => c.from === 'slow.out')).toEqual([]);
    expect(made.cables.length).toBe(voice.patch.cables.length - before);
  });
});
