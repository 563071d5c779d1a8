import { num } from './standIn';
import type { Served, StandIn, Wanted } from './standIn';

function byEnvelopeSlew({ params: p, range, used }: Wanted): Served[] {
  const [low, high] = range('gate');
  const peak = p.followsLevel === true ? high : num(p, 'peakVolts');
  const straight = num(p, 'attackCurve') === 0 && num(p, 'decayCurve') === 0;
  if (p.mode !== 'ar' || low !== 0 || num(p, 'restVolts') !== 0 || Math.abs(high - peak) > 1e-9 || used('level'))
    return [];
  if (!straight || num(p, 'timeAmount') !== 0 || peak <= 0) return [];
  // A linear lag crosses 10 V in its time.
  const stretched = 10 / peak;
  return [
    {
      needs: {
        law: 'linear',
        rise: Number((num(p, 'attack') * stretched).toPrecision(12)),
        fall: Number((num(p, 'release') * stretched).toPrecision(12)),
        minimum: 0,
      },
      inputs: { gate: 'in' },
      outputs: { out: 'out' },
    },
  ];
}

/** For what goes by time and by thresholds. */
export const timing: readonly StandIn[] = [
  {
    wanted: 'clock',
    by: 'lfo',
    cost: 1,
    says: 'an LFO’s pulse output works as a clock',
    as: ({ params: p }) =>
      p.swing === 0.5
        ? [
            {
              needs: {
                rateHz: num(p, 'bpm') / (60 * num(p, 'beats')),
                beats: null,
                mode: 'free',
                phase: 0,
                width: num(p, 'width'),
                lowVolts: num(p, 'lowVolts'),
                highVolts: num(p, 'highVolts'),
              },
              inputs: { reset: 'reset' },
              outputs: { out: 'pulse' },
            },
          ]
        : [],
  },
  {
    wanted: 'envelope',
    by: 'slew',
    cost: 2,
    says: 'a slew limiter fed by the gate acts as an AR envelope',
    differs: 'a gate shorter than the rise time turns back before the peak',
    as: byEnvelopeSlew,
  },
  {
    wanted: 'comparator',
    by: 'follower',
    cost: 4,
    says: 'a follower’s gate tells loud from quiet',
    differs: 'it answers to how loud a sound is, a little late, and not to its voltage',
    as: ({ params: p, used }) =>
      used('threshold') || p.lowVolts !== 0
        ? []
        : [
            {
              needs: { gain: 1, thresholdVolts: num(p, 'thresholdVolts'), gateVolts: num(p, 'highVolts') },
              inputs: { in: 'in' },
              outputs: { out: 'gate' },
            },
          ],
  },
];
