import { describe, expect, it } from 'vitest';
import { predict } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { readingMore, readingText } from './readingText';

const plain = (text: string): string => text.replaceAll('\u00a0', ' ').replaceAll('\u2212', '-');
const said = (patch: ReturnType<typeof patchOf>, at: string): string[] => {
  const r = predict(patch, { cures: false }).readings.find((x) => x.at === at)!;
  return [readingText(r), ...readingMore(r)].map(plain);
};

describe('a reading in words', () => {
  it('a gate that never comes, one that stays, and pulses as seen', () => {
    const gate = (volts: number, travel: object = {}) =>
      said(
        patchOf({ c: ['constant', { volts, ...travel }], e: ['envelope'] }, ['c.out > e.gate'], { duration: 1 }),
        'e.gate',
      );
    expect(gate(0)).toEqual(['Low at rest']);
    expect(gate(4)).toEqual(['High at rest']);
    expect(gate(0, { lowVolts: -1, highVolts: 0.9 })).toEqual(['Never high']);
    expect(gate(4, { lowVolts: 2, highVolts: 5 })).toEqual(['Always high']);
    const clocked = patchOf({ c: ['clock', { bpm: 90 }], e: ['envelope'] }, ['c.out > e.gate'], { duration: 4 });
    expect(said(clocked, 'e.gate')).toEqual(['1.500 /s (simulated)', 'high 50% of the time']);
  });
  it('is told in notes and in shares of unity where those are preferred', () => {
    const units = { pitches: 'notes', gains: 'percent' } as const;
    const patch = patchOf(
      {
        two: ['constant', { volts: 2, lowVolts: 1, highVolts: 2 }],
        tone: ['oscillator', { baseHz: 261.625565 }],
        amp: ['vca', { cvAmount: 1, unityVolts: 8 }],
      },
      ['two.out > tone.pitch', 'two.out > amp.cv'],
    );
    const { readings } = predict(patch, { cures: false });
    const [tone, amp] = ['tone.pitch', 'amp.cv'].map((at) => readings.find((r) => r.at === at)!);
    expect(plain(readingText(tone!, units))).toBe('C6');
    expect(readingMore(tone!, units).map(plain)).toContain('1.05 kHz');
    expect(readingMore(tone!).map(plain)).not.toContain('C6');
    expect(plain(readingText(amp!, units))).toBe('25.0%');
    expect(plain(readingText(amp!))).toBe('-12.0 dB');
  });
  it('a fader’s is told at rest, and over its travel', () => {
    const patch = patchOf({ w: ['constant', { volts: 0, lowVolts: 0 }], f: ['filter', { cutoffHz: 200 }] }, [
      'w.out > f.cutoff',
    ]);
    expect(said(patch, 'f.cutoff')).toEqual(['200 Hz', 'at rest; 200 Hz to 6.40 kHz over its faders’ travel']);
  });
  it('a level with its peak, and what that is over both line levels', () => {
    const patch = patchOf({ o: ['oscillator'], x: ['lineOut', { padDb: 20 }] }, ['o.sine > x.left'], { duration: 1 });
    expect(said(patch, 'x.left')).toEqual([
      '-6.8 dBu',
      'peak no higher than -3.8 dBu',
      '10.8 dB below +4 dBu',
      '1.0 dB above -10 dBV',
    ]);
  });
  it('how long it is beyond its window', () => {
    const patch = patchOf({ l: ['lfo', { lowVolts: -5, highVolts: 5 }], a: ['lowPassGate'] }, ['l.out > a.cv']);
    expect(said(patch, 'a.cv')[1]).toBe('below range 50% of the time');
  });
});
