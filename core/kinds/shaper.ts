import type { Laws } from '../law/builder';
import type { Curve, Affine } from '../law/affine';
import { control, kind, knob, never, signal } from './kind';
import type { Sockets } from './kind';
import { choice, number, volts, setUp } from './params';
import { softLimit } from './response';

/** Folded back at ±limit as often as told; what is still beyond is left to the knee. */
function foldCurve(limit: number, folds: number): Curve {
  const edges = Array.from({ length: folds }, (_, i) => (2 * i + 1) * limit);
  return {
    key: `fold ${limit} ${folds}`,
    f(x) {
      let v = x;
      for (let i = 0; i < folds; i++) {
        if (v > limit) v = 2 * limit - v;
        else if (v < -limit) v = -2 * limit - v;
      }
      return v;
    },
    kinks: [...edges.map((e) => -e).toReversed(), ...edges],
  };
}

interface Folds {
  readonly gain: number;
  readonly biasVolts: number;
  readonly clipVolts: number;
  readonly folds: number;
}

/** Scaled and offset. */
const beforeFolds = (b: Laws, p: Folds, io: Sockets): Affine =>
  b.sum([b.mul(knob(b, p, io, 'gain'), io.in('in')), 1], [io.in('bias'), 1], [knob(b, p, io, 'biasVolts'), 1]);

/** The roots w of sinh 2w = 2w + 4k, by k folds: at w + 2k times the level c, c·tanh(v/c − 2k) turns over c. */
const SOFT_TURNS = [
  0, 1.2917102500399398, 1.5511618353651413, 1.715272226685911, 1.8365208814355487, 1.9330212178273514,
  2.0133100381771376,
];

/**
 * Where a clip level under a hand can bring the highest or lowest out of a voltage: where it lies on a fold's edge and,
 * behind the last fold, where a soft knee turns. Scaled together, voltage and level come out scaled as much: one of the two
 * is at an end of its range there.
 */
function levelTurns(b: Laws, p: Folds, io: Sockets): number[] {
  const edges = Array.from({ length: p.folds + 1 }, (_, k) => 2 * k + 1);
  const shares = [...edges, (SOFT_TURNS[p.folds] ?? 0) + 2 * p.folds].filter((share) => share > 0);
  return io.range(beforeFolds(b, p, io)).flatMap((v) => shares.map((share) => Math.abs(v) / share));
}

/** Scaled, offset and folded, before the knee. */
function foldedOf(b: Laws, p: Folds, io: Sockets): Affine {
  const v = beforeFolds(b, p, io);
  return p.folds === 0 ? v : b.curve(v, foldCurve(p.clipVolts, p.folds));
}

export const shaper = kind({
  name: 'shaper',
  title: 'Waveshaper',
  does: 'clips or folds',
  aliases: ['wavefolder', 'distortion'],
  words: {
    params: {
      gain: 'Drive',
      biasVolts: 'Bias (symmetry)',
      clipVolts: 'Clip / fold level',
      knee: 'Clipping',
      folds: 'Folds',
    },
    options: { knee: { hard: 'Hard', soft: 'Soft' } },
  },
  formula:
    'v = gain·in + biasVolts + bias; folded back at ±clipVolts folds times; then hard clip, or clipVolts·tanh(v/clipVolts)',
  category: 'between',
  params: {
    gain: number(1, 0, 10),
    biasVolts: volts(0),
    clipVolts: setUp(number(10, 0.1, 24, 'V')),
    knee: choice(['hard', 'soft']),
    folds: number(0, 0, 6, '', { whole: true }),
  },
  brief: (p) => (p.folds > 0 ? `${p.folds} ${p.folds === 1 ? 'fold' : 'folds'}` : `${p.knee} clip`),
  inputs: () => [signal('in', 0, 'gain'), control('bias')],
  outputs: () => ['out'],
  panel: {
    scaledBy: () => ['gain', 'biasVolts'],
    voltages: ['gain', 'biasVolts'],
    turnsAt: (b, p, io) => ({ param: 'clipVolts', places: levelTurns(b, p, io) }),
  },
  memory: never,
  stage: {
    shapes: true,
    clipLevel: (p) => (p.knee === 'hard' ? p.clipVolts : null),
    clips: (b, p, io) => (p.knee === 'hard' ? [{ value: foldedOf(b, p, io), level: p.clipVolts }] : []),
  },
  law(b, p, io) {
    const folded = foldedOf(b, p, io);
    if (p.knee === 'hard') return { out: b.clamp(folded, -p.clipVolts, p.clipVolts) };
    return { out: b.curve(folded, softLimit(p.clipVolts)) };
  },
});
