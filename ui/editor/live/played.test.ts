import { describe, expect, it } from 'vitest';
import { blank } from '@/core';
import { Controllers, wordOf } from './midi';
import { fader, fromController, isFader, KEYS, playable, shareOf, valueAt, voltsOfKey } from './played';

describe('what can be played', () => {
  it('is every knob, faders first', () => {
    const patch = {
      ...blank,
      modules: [
        { id: 'trim', kind: 'offset' },
        { id: 'tide', kind: 'constant', label: 'Tide' },
      ],
    };
    expect(playable(patch).map((p) => p.label)).toEqual(['Tide', 'Scale and offset gain', 'Scale and offset offset']);
  });
  it('a drawn gesture becomes a fader that stands where it began; a fader alone is one', () => {
    const points = [
      { t: 0, volts: 1.5 },
      { t: 2, volts: 4 },
    ];
    const drawn = { id: 'tide', kind: 'gesture', label: 'Tide', params: { points } };
    const made = { id: 'tide', kind: 'constant', label: 'Tide', params: { volts: 1.5 } };
    expect(fader(drawn)).toEqual({ do: 'replace', module: made });
    expect(isFader({ ...blank, modules: [drawn] }, 'tide.volts')).toBe(false);
    expect(isFader({ ...blank, modules: [made] }, 'tide.volts')).toBe(true);
    expect(isFader({ ...blank, modules: [made] }, 'tides.volts')).toBe(false);
  });
  it('has two octaves of keys, a volt an octave', () => {
    expect(KEYS).toHaveLength(25);
    expect(new Set(KEYS).size).toBe(25);
    expect([0, 12, 24].map(voltsOfKey)).toEqual([-1, 0, 1]);
  });
  it('takes a controller from end to end', () => {
    const knob = { min: -2, max: 6, taper: 'linear' } as const;
    expect([0, 127, 200].map((v) => fromController(knob, v))).toEqual([-2, 6, 6]);
    // Half way up a cutoff is half way up its octaves.
    const cutoff = { min: 16, max: 20_000, taper: 'log' } as const;
    expect(fromController(cutoff, 64)).toBeCloseTo(16 * 1250 ** (64 / 127), 6);
    expect(fromController(cutoff, 63.5)).toBeCloseTo(Math.sqrt(16 * 20_000), 6);
  });
});

describe('a way', () => {
  it('has a share for each value, and holds at its ends', () => {
    const knob = { min: -2, max: 6, value: 4, taper: 'linear' } as const;
    expect(shareOf(knob)).toBe(0.75);
    expect([-1, 0.25, 2].map((share) => valueAt(knob, share))).toEqual([-2, 0, 6]);
    expect(shareOf({ ...knob, value: 99 })).toBe(1);
  });
});

describe('a controller', () => {
  it('speaks in controls and notes; the rest is not heard', () => {
    expect(wordOf([0xb3, 7, 100])).toEqual({ is: 'control', number: 7, value: 100 });
    expect(wordOf([0x90, 60, 90])).toEqual({ is: 'note', key: 60, velocity: 90 });
    expect(wordOf([0x80, 60, 90])).toEqual({ is: 'note', key: 60, velocity: 0 });
    expect(wordOf([0xf8, 0, 0])).toBeNull();
  });
  it('that is simulated is heard by all who listen, until they stop', () => {
    const [controllers, heard] = [new Controllers(), [] as unknown[]];
    const stop = controllers.listen((word) => heard.push(word));
    controllers.send([0xb0, 1, 5]);
    stop();
    controllers.send([0xb0, 1, 6]);
    expect(heard).toEqual([{ is: 'control', number: 1, value: 5 }]);
  });
});
