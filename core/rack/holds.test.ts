import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ChannelMode } from '../document/rackTypes';
import { kindNamed } from '../kinds';
import type { ParamValues } from '../kinds/params';
import { patchOf } from '../testing/patch';
import { channelSettings, limitsThere } from './holds';

const mode = (kind: string, more: Partial<ChannelMode> = {}): ChannelMode => ({
  kind,
  fixed: {},
  choices: {},
  ranges: {},
  ...more,
});
const held = (m: ChannelMode, needs: ParamValues): ParamValues | string => {
  const answer = channelSettings(m, needs);
  return answer.ok ? answer.params : answer.why;
};

describe('what a channel can be set to', () => {
  it('is what is asked for where nothing limits it, told as what differs from the usual', () => {
    expect(held(mode('offset'), { amount: 0.4, volts: 0 })).toEqual({ amount: 0.4 });
    expect(held(mode('offset'), {})).toEqual({});
  });
  it('is within its range, or told with it', () => {
    const narrow = mode('offset', { ranges: { volts: [-2, 2] } });
    expect(held(narrow, { volts: 1.5 })).toEqual({ volts: 1.5 });
    expect(held(narrow, { volts: 3 })).toBe('Offset ranges from -2 to 2 on this channel; the patch needs 3');
  });
  it('is one of its choices, or told with them; what is fixed is fixed', () => {
    const steps = mode('lfo', { choices: { shape: ['sine', 'triangle'] }, fixed: { lowVolts: 0 } });
    expect(held(steps, { shape: 'triangle' })).toMatchObject({ lowVolts: 0 });
    expect(held(steps, { shape: 'ramp' })).toBe('Waveform can be sine, triangle on this channel; the patch needs ramp');
    expect(held(steps, { lowVolts: -5 })).toBe('Minimum is fixed at 0 on this channel; the patch needs -5');
    // What nobody asks for is as the channel has it.
    expect(held(steps, {})).toMatchObject({ lowVolts: 0 });
  });
  it('a knob that reaches further serves, and fewer sockets never do', () => {
    const wide = mode('offset', { fixed: { maxAmount: 2 } });
    expect(held(wide, { amount: 0.5, maxAmount: 1 })).toEqual({ amount: 0.5, maxAmount: 2 });
    const small = mode('mixer', { fixed: { inputs: 3 } });
    expect(held(small, { inputs: 2 })).toMatchObject({});
    expect(held(small, { inputs: 4 })).toBe('Number of inputs has too small a range on this channel');
    expect(held(mode('mixer', { fixed: { inputs: 6 } }), { inputs: 4 })).toMatchObject({ inputs: 6 });
  });
  it('a knob that does not reach is told with how far it goes', () => {
    const short = mode('offset', { fixed: { maxAmount: 1 } });
    expect(held(short, { amount: 1.5 })).toBe('amount must be between -1 and 1, got 1.5');
  });
  it('a kind that is none is told', () => {
    expect(held(mode('nothing'), {})).toBe('there is no kind nothing');
  });
  it('is always what a patch may hold, and what was asked for to the last figure', () => {
    const volts = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(volts, volts, volts, fc.double({ min: -1, max: 1, noNaN: true }), (a, b, wanted, amount) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        const answer = channelSettings(mode('offset', { ranges: { volts: [low, high] } }), { volts: wanted, amount });
        expect(answer.ok).toBe(wanted >= low - 1e-12 && wanted <= high + 1e-12);
        if (!answer.ok) return;
        const [m] = patchOf({ o: ['offset', answer.params] }).modules;
        expect(Number(m!.params?.volts ?? 0)).toBeCloseTo(wanted, 8);
        expect(Number(m!.params?.amount ?? kindNamed('offset')!.params.amount!.default)).toBeCloseTo(amount, 8);
      }),
    );
  });
});

describe('the limits there of a knob', () => {
  it('are the kind’s own within the channel’s, or the one place where it is fixed', () => {
    const m = mode('offset', { ranges: { volts: [-2, 9] }, fixed: { amount: 0.5 } });
    expect(limitsThere(m, 'volts', [-5, 5])).toEqual([-2, 5]);
    expect(limitsThere(m, 'amount', [-1, 1])).toEqual([0.5, 0.5]);
    expect(limitsThere(m, 'other', [0, 1])).toEqual([0, 1]);
  });
});
