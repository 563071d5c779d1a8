import { describe, expect, it } from 'vitest';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from '../testing/patch';
import { earsOffered, usualEars } from './ears';
import { testVoice } from './testVoice';

const slow = { slow: ['lfo', { rateHz: 2 }] } as const;

/** Root mean square of what a voice puts out in a stretch of the run, volts. */
function loudness(
  patch: Parameters<typeof buildGraph>[0],
  socket: string,
  [from, to]: readonly [number, number],
): number {
  const graph = buildGraph({ ...patch, settings: { ...patch.settings, duration: 1 } });
  const trace = simulateGraph(graph, { traces: [socket] }).traces.get(socket)!;
  const part = trace.subarray(from * graph.sampleRate, to * graph.sampleRate);
  return Math.sqrt(part.reduce((sum, v) => sum + v * v, 0) / part.length);
}

describe('the ears', () => {
  it('are the line output after its pad, on both sides', () => {
    const graph = buildGraph(
      patchOf({ tone: ['oscillator'], out: ['lineOut', { padDb: 20 }] }, [
        'tone.saw > out.left',
        'tone.sine > out.right',
      ]),
    );
    expect(usualEars(graph)).toMatchObject({ left: 'out.left', right: 'out.right', gain: 0.1 });
    expect(earsOffered(graph).map((e) => e.left)).toEqual([
      'out.left',
      'tone.sine',
      'tone.triangle',
      'tone.saw',
      'tone.pulse',
    ]);
  });

  it('are where the sound comes out at last, and nothing where there are voltages alone', () => {
    const graph = buildGraph(patchOf({ tone: ['oscillator'], soft: ['filter'] }, ['tone.saw > soft.in']));
    expect(usualEars(graph)?.left).toBe('soft.lowpass');
    expect(usualEars(buildGraph(patchOf({ ...slow })))).toBeNull();
  });
});

describe('a test voice', () => {
  it('passes two tones through a filter that has no sound, and leaves the patch alone', () => {
    const patch = patchOf({ ...slow, tone: ['filter'] }, ['slow.out > tone.cutoff']);
    const voice = testVoice(buildGraph(patch), 'tone.cutoff')!;
    expect(voice.ears.left).toBe('tone.lowpass');
    expect(voice.says).toContain('not part of the patch');
    expect(patch.modules).toHaveLength(2);
    // The slow triangle is up in its first half and down in its second: open, then shut.
    expect(loudness(voice.patch, voice.ears.left, [0.05, 0.2])).toBeGreaterThan(
      3 * loudness(voice.patch, voice.ears.left, [0.3, 0.45]),
    );
  });

  it('is opened by the voltage of an amplifier', () => {
    const voice = testVoice(buildGraph(patchOf({ ...slow, amp: ['vca'] }, ['slow.out > amp.cv'])), 'amp.cv')!;
    expect(voice.ears.left).toBe('amp.out');
    expect(loudness(voice.patch, voice.ears.left, [0.05, 0.2])).toBeGreaterThan(0.5);
    expect(loudness(voice.patch, voice.ears.left, [0.3, 0.45])).toBeLessThan(0.01);
  });

  it('plays notes by their voltage, and any other voltage by its brightness', () => {
    const notes = patchOf({ ...slow, near: ['quantizer'] }, ['slow.out > near.in']);
    expect(testVoice(buildGraph(notes), 'near.in')!.says).toContain('pitch');
    const knob = patchOf({ ...slow, knob: ['parameter'] }, ['slow.out > knob.cv']);
    expect(testVoice(buildGraph(knob), 'knob.cv')!.says).toContain('filter');
    expect(testVoice(buildGraph(knob), 'slow.pulse')!.says).toContain('VCA');
  });

  it('is a short note for an echo, two tones for a fade, and none where there is sound', () => {
    const echo = patchOf({ ...slow, echo: ['delay'] }, ['slow.out > echo.time']);
    expect(testVoice(buildGraph(echo), 'echo.time')!.says).toContain('short note');
    const fade = patchOf({ ...slow, fade: ['crossfade'] }, ['slow.out > fade.cv']);
    expect(testVoice(buildGraph(fade), 'fade.cv')!.ears.left).toBe('fade.out');
    const sounding = patchOf({ ...slow, tone: ['oscillator'], soft: ['filter'] }, [
      'tone.saw > soft.in',
      'slow.out > soft.cutoff',
    ]);
    expect(testVoice(buildGraph(sounding), 'soft.cutoff')).toBeNull();
    expect(testVoice(buildGraph(patchOf({ tone: ['oscillator'] })), 'tone.pitch')).toBeNull();
  });
});
