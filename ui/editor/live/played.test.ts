import { describe, expect, it } from 'vitest';
import { blank } from '@/core';
import fc from 'fast-check';
import { CONTROLS } from '@/core';
import { equalTuning } from '@/core/formats/keyTuning';
import { Controllers, Decoder } from './midi';
import { Takeover } from './takeover';
import { fader, isFader, KEYS, keyedShare, playable, shareOf, valueAt, voltsOfKey } from './played';

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
    expect([0, 12, 24].map((key) => voltsOfKey(key))).toEqual([-1, 0, 1]);
    const notes = equalTuning.notes.map((note, key) => (key === 60 ? null : note! - 0.12));
    expect([0, 12, 24].map((key) => voltsOfKey(key, { name: 'Low', notes }))).toEqual([-1.01, null, 0.99]);
  });
  it('goes by the taper of its knob: half way up a cutoff is half way up its octaves', () => {
    const cutoff = { min: 16, max: 20_000, taper: 'log', value: Math.sqrt(16 * 20_000) } as const;
    expect(shareOf(cutoff)).toBeCloseTo(0.5, 9);
    expect(valueAt(cutoff, 0.5)).toBeCloseTo(cutoff.value, 6);
    // A key is a hundredth of ten octaves and a bit, not of 20 kHz.
    expect(valueAt(cutoff, keyedShare(0.5, 'ArrowUp', false)!) / cutoff.value).toBeCloseTo(1250 ** 0.01, 9);
  });
  it('moves by 1 % a key, 10 % a page, a tenth of it with Shift, and stays on its way', () => {
    expect(keyedShare(0.5, 'ArrowLeft', false)).toBeCloseTo(0.49, 12);
    expect(keyedShare(0.5, 'PageUp', false)).toBeCloseTo(0.6, 12);
    expect(keyedShare(0.5, 'PageDown', true)).toBeCloseTo(0.49, 12);
    expect([keyedShare(0.995, 'ArrowUp', false), keyedShare(0.05, 'PageDown', false)]).toEqual([1, 0]);
    expect(keyedShare(0.5, 'q', false)).toBeNull();
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
    const decoder = new Decoder();
    expect(decoder.word([0xb3, 70, 127])).toEqual({ is: 'control', number: 70, share: 1 });
    expect(decoder.word([0x90, 60, 90])).toEqual({ is: 'note', key: 60, velocity: 90 });
    expect(decoder.word([0x80, 60, 90])).toEqual({ is: 'note', key: 60, velocity: 0 });
    expect(decoder.word([0xf8, 0, 0])).toBeNull();
    const bytes = Uint8Array.from([0xf0, 0x7e, 0, 8, 0xf7]);
    expect(decoder.word(bytes)).toEqual({ is: 'exclusive', bytes });
  });
  it('bends from end to end in 14 bits', () => {
    const bend = (low: number, high: number) => new Decoder().word([0xe0, low, high]);
    expect(bend(0, 0)).toEqual({ is: 'control', number: CONTROLS.bend, share: 0 });
    expect(bend(127, 127)).toEqual({ is: 'control', number: CONTROLS.bend, share: 1 });
    expect(bend(0, 64)).toMatchObject({ share: expect.closeTo(0.5, 3) });
  });
  it('that sends a control in two parts has 14 bits from then on, and goes up evenly', () => {
    const decoder = new Decoder();
    decoder.word([0xb0, 7, 0]);
    decoder.word([0xb0, 39, 0]);
    const shares = Array.from({ length: 2 ** 14 }, (_, n) => {
      expect(decoder.word([0xb0, 7, n >> 7])).toBeNull();
      const word = decoder.word([0xb0, 39, n & 127]);
      return word?.is === 'control' && word.number === 7 ? word.share : NaN;
    });
    shares.forEach((share, n) => expect(share).toBeCloseTo(n / (2 ** 14 - 1), 12));
    // A coarse part that stays is not sent again; a channel of its own is its own.
    expect(decoder.word([0xb0, 39, 0])).toMatchObject({ number: 7, share: (128 * 127) / (2 ** 14 - 1) });
    expect(decoder.word([0xb1, 7, 127])).toEqual({ is: 'control', number: 7, share: 1 });
  });
  it('is in 7 bits again where two controls only seemed to be one', () => {
    const decoder = new Decoder();
    decoder.word([0xb0, 7, 10]);
    decoder.word([0xb0, 39, 20]);
    decoder.word([0xb0, 7, 11]);
    expect(decoder.word([0xb0, 7, 12])).toEqual({ is: 'control', number: 7, share: 12 / 127 });
    decoder.word([0xb0, 70, 1]);
    expect(decoder.word([0xb0, 39, 127])).toEqual({ is: 'control', number: 39, share: 1 });
  });
  it('that is simulated is heard by all who listen, until they stop', () => {
    const [controllers, heard] = [new Controllers(), [] as unknown[]];
    const stop = controllers.listen((word) => heard.push(word));
    controllers.send([0xb0, 1, 5]);
    stop();
    controllers.send([0xb0, 1, 6]);
    expect(heard).toEqual([{ is: 'control', number: 1, share: 5 / 127 }]);
  });
});

describe('a controller that takes over', () => {
  it('waits until it has come to the knob, and then leads it', () => {
    const takeover = new Takeover();
    const at = (standing: number, to: number) => takeover.move(7, 'trim.amount', standing, to);
    expect([at(0.5, 0.1), at(0.5, 0.3), at(0.5, 0.497), at(0.497, 0.9)]).toEqual([null, null, 0.497, 0.9]);
    // Somebody turns the knob on the screen: it waits again, until it passes it.
    expect([at(0.2, 0.8), at(0.2, 0.6), at(0.2, 0.1), at(0.1, 0)]).toEqual([null, null, 0.1, 0]);
    // Another knob under the same control is not its own.
    expect(takeover.move(7, 'trim.volts', 0.5, 0.1)).toBeNull();
  });
  it('never moves a knob away from where the hand goes', () => {
    const way = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), way, (stood, moves) => {
        const takeover = new Takeover();
        let [knob, last] = [stood, null as number | null];
        for (const to of moves) {
          const next = takeover.move(1, 'k', knob, to);
          // It moves only from between where the controller was and is, or beside it.
          const near = Math.abs(to - knob) <= 1 / 127;
          const led = last !== null && (Math.abs(last - knob) < 1 / 127 || (last - knob) * (to - knob) <= 0);
          expect(next !== null).toBe(near || led);
          if (next !== null) knob = next;
          last = to;
        }
      }),
    );
  });
});
