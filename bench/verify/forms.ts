import { predict } from '../../core/answers/predict';
import { simulate } from '../../core/simulate/simulate';
import { patchOf } from '../../core/testing/patch';

/** A figure of the core beside its closed form. */
export interface Form {
  readonly name: string;
  readonly formula: string;
  readonly ours: number;
  readonly theirs: number;
  readonly unit: string;
}

type Parts = Parameters<typeof patchOf>[0];
type Quantity = 'mean' | 'rms' | 'high' | 'top';

/** A figure of an output's simulation, or of what is guaranteed there. */
function at(parts: Parts, cables: readonly string[], socket: string, quantity: Quantity, duration = 8): number {
  const { outputs } = predict(patchOf(parts, cables, { duration }), { cures: false });
  const found = outputs[socket];
  if (!found) throw new Error(`there is no ${socket}`);
  // The greatest that was seen: two free oscillators guarantee no phase.
  if (quantity === 'top') return found.seen?.[1] ?? Number.NaN;
  if (quantity === 'high') return found.arrives[1];
  return Number(found[quantity]);
}

/** A reading's higher figure. */
function reads(parts: Parts, cables: readonly string[], socket: string): number {
  const found = predict(patchOf(parts, cables, { duration: 1 }), { cures: false }).readings.find(
    (r) => r.at === socket,
  );
  return found?.arrivesHigh ?? Number.NaN;
}

/** The voltage at a moment, seconds. */
function moment(parts: Parts, cables: readonly string[], socket: string, seconds: number): number {
  const run = simulate(patchOf(parts, cables, { duration: seconds + 0.01, sampleRate: 48_000 }), { traces: [socket] });
  return run.traces.get(socket)?.[Math.round(seconds * run.sampleRate)] ?? Number.NaN;
}

const A = 5;
const lfo = (shape: string, more: object = {}): Parts => ({ l: ['lfo', { shape, rateHz: 1, ...more } as never] });
const waves = (shape: string, quantity: Quantity, more: object = {}): number =>
  at(lfo(shape, more), [], 'l.out', quantity);
const volts = (value: number): Parts[string] => ['constant', { volts: value, lowVolts: -10, highVolts: 10 }];
const through = (kind: string, params: object, socket = 'in'): [Parts, string[]] => [
  { l: ['lfo', { shape: 'sine', rateHz: 1 }], x: [kind, params as never] },
  [`l.out > x.${socket}`],
];
/** A sine of 1 Hz and another, added up. */
const sumWith = (other: object, quantity: Quantity): number =>
  at(
    { l: ['lfo', { shape: 'sine', rateHz: 1 }], m: ['lfo', { shape: 'sine', ...other } as never], s: ['mixer', {}] },
    ['l.out > s.in1', 'm.out > s.in2'],
    's.out',
    quantity,
  );
const step = (law: string, seconds: number): number =>
  moment(
    {
      g: [
        'gesture',
        {
          points: [
            { t: 0, volts: 0 },
            { t: 0.1, volts: 0 },
            { t: 0.100001, volts: 8 },
            { t: 9, volts: 8 },
          ] as never,
        },
      ],
      w: ['slew', { law, rise: 0.4, fall: 0.4 }],
    },
    ['g.out > w.in'],
    'w.out',
    0.1 + seconds,
  );
/** The magnitude of a state-variable filter at its cutoff. */
const atCutoff = (resonance: number): number => {
  const parts: Parts = {
    o: ['oscillator', { baseHz: 1000 }],
    f: ['filter', { cutoffHz: 1000, resonance }],
  };
  return at(parts, ['o.sine > f.in'], 'f.lowpass', 'rms', 2) / (A / Math.SQRT2);
};

const form = (name: string, formula: string, ours: number, theirs: number, unit = 'V'): Form => ({
  name,
  formula,
  ours,
  theirs,
  unit,
});

const sources = (): Form[] => [
  form('Sine, mean', '0', waves('sine', 'mean'), 0),
  form('Sine, RMS', 'A/√2', waves('sine', 'rms'), A / Math.SQRT2),
  form('Triangle, RMS', 'A/√3', waves('triangle', 'rms'), A / Math.sqrt(3)),
  form('Ramp, RMS', 'A/√3', waves('rampUp', 'rms'), A / Math.sqrt(3)),
  form('Pulse, RMS', 'A', waves('pulse', 'rms'), A),
  form('Pulse of a quarter, mean', 'A(2·¼ − 1)', waves('pulse', 'mean', { width: 0.25 }), -A / 2),
  form('Sine from 0 to 8 V, mean', '(0 + 8)/2', waves('sine', 'mean', { lowVolts: 0, highVolts: 8 }), 4),
  form('Sine from 0 to 8 V, RMS', '√(4² + 4²/2)', waves('sine', 'rms', { lowVolts: 0, highVolts: 8 }), Math.sqrt(24)),
  form('Clock of 30 %, mean', '5·0.3', at({ c: ['clock', { bpm: 120, width: 0.3 }] }, [], 'c.out', 'mean'), 1.5),
  form('White noise, RMS', 'A/√3', at({ n: ['noise', { colour: 'white' }] }, [], 'n.out', 'rms', 20), A / Math.sqrt(3)),
  form(
    'Steps 1, 3, 0, 2 V, mean',
    '6/4',
    at(
      {
        c: ['clock', { bpm: 240 }],
        s: ['sequencer', { steps: [1, 3, 0, 2].map((v) => ({ volts: v, gate: true, tie: false })) as never }],
      },
      ['c.out > s.clock'],
      's.cv',
      'mean',
    ),
    1.5,
  ),
];

const shapes = (): Form[] => [
  form(
    'Full-wave rectified sine, mean',
    '2A/π',
    at(...through('rectifier', { mode: 'full' }), 'x.out', 'mean'),
    (2 * A) / Math.PI,
  ),
  form(
    'Half-wave rectified sine, mean',
    'A/π',
    at(...through('rectifier', { mode: 'positive' }), 'x.out', 'mean'),
    A / Math.PI,
  ),
  form(
    'Half-wave rectified sine, RMS',
    'A/2',
    at(...through('rectifier', { mode: 'positive' }), 'x.out', 'rms'),
    A / 2,
  ),
  form(
    'Comparator at half of a sine, mean',
    '5·(1/3)',
    at(...through('comparator', { thresholdVolts: 2.5, hysteresis: 0 }), 'x.out', 'mean'),
    5 / 3,
  ),
  form(
    'Sine squared by a ring modulator, mean',
    'A²/(2·5)',
    at(
      { l: ['lfo', { shape: 'sine', rateHz: 1 }], r: ['ringMod', { coupling: 'dc' }] },
      ['l.out > r.a', 'l.out > r.b'],
      'r.out',
      'mean',
    ),
    A / 2,
  ),
  form(
    'Product of two sines, RMS',
    'A²/(5·2)',
    at(
      {
        l: ['lfo', { shape: 'sine', rateHz: 1 }],
        m: ['lfo', { shape: 'sine', rateHz: 3 }],
        r: ['ringMod', { coupling: 'dc' }],
      },
      ['l.out > r.a', 'm.out > r.b'],
      'r.out',
      'rms',
    ),
    A / 2,
  ),
  form('Sum of two sines of 1 and 3 Hz, RMS', '√(A²/2 + A²/2)', sumWith({ rateHz: 3 }, 'rms'), A),
  form('Sum of a sine and itself a quarter later, RMS', 'A', sumWith({ rateHz: 1, phase: 0.25 }, 'rms'), A),
  form('A quarter later: highest of the sum', 'A√2', sumWith({ rateHz: 1, phase: 0.25 }, 'top'), A * Math.SQRT2),
  form(
    'Equal-power crossfade in its middle',
    'cos(π/4)·4',
    at({ a: volts(4), x: ['crossfade', { law: 'equalPower', position: 0.5 }] }, ['a.out > x.in'], 'x.out', 'high'),
    4 * Math.SQRT1_2,
  ),
  form(
    'Linear crossfade at a quarter',
    '0.75·4 + 0.25·2',
    at(
      { a: volts(4), b: volts(2), x: ['crossfade', { law: 'linear', position: 0.25 }] },
      ['a.out > x.in', 'b.out > x.in2'],
      'x.out',
      'high',
    ),
    3.5,
  ),
  form(
    'Passive pot at half into its own resistance',
    'k·L/(L + k(1 − k)R)·4',
    at(
      { a: volts(4), p: ['attenuator', { build: 'passive', amount: 0.5, potOhms: 100_000 }], i: ['inverter'] },
      ['a.out > p.in', 'p.out > i.in'],
      'p.out',
      'high',
    ),
    (4 * 0.5 * 100_000) / (100_000 + 25_000),
  ),
  form(
    'Two outputs of 1 kΩ joined into 100 kΩ',
    '(6/1 + 2/1)/(2/1 + 1/100)',
    at(
      {
        a: ['constant', { volts: 5, lowVolts: 0, highVolts: 5 }, { outputOhms: { out: 1000 } }],
        b: ['constant', { volts: 2, lowVolts: 0, highVolts: 5 }, { outputOhms: { out: 1000 } }],
        j: ['junction'],
        i: ['inverter'],
      },
      ['a.out > j.in1', 'b.out > j.in2', 'j.out > i.in'],
      'j.out',
      'high',
    ),
    7 / (2 + 0.01),
  ),
];

const readings = (): Form[] => [
  form(
    'Cutoff of 200 Hz, up by 2.5 V',
    '200·2^2.5',
    reads({ a: volts(2.5), f: ['filter', { cutoffHz: 200 }] }, ['a.out > f.cutoff'], 'f.cutoff'),
    200 * 2 ** 2.5,
    'Hz',
  ),
  form(
    'Pitch of 110 Hz, up by 7 semitones',
    '110·2^(7/12)',
    reads({ a: volts(7 / 12), o: ['oscillator', { baseHz: 110 }] }, ['a.out > o.pitch'], 'o.pitch'),
    110 * 2 ** (7 / 12),
    'Hz',
  ),
  form(
    'Linear VCA at half of its unity',
    '20·lg ½',
    reads({ a: volts(2.5), v: ['vca', { cvAmount: 1, unityVolts: 5, bias: 0 }] }, ['a.out > v.cv'], 'v.cv'),
    20 * Math.log10(0.5),
    'dB',
  ),
  form(
    'Linear VCA at 5 of 8 V',
    '20·lg ⅝',
    reads({ a: volts(5), v: ['vca', { cvAmount: 1, unityVolts: 8, bias: 0 }] }, ['a.out > v.cv'], 'v.cv'),
    20 * Math.log10(5 / 8),
    'dB',
  ),
  form(
    'Delay of 0.3 s, up by −1 V',
    '0.3·½',
    reads({ a: volts(-1), d: ['delay', { seconds: 0.3, timeAmount: 1 }] }, ['a.out > d.time'], 'd.time'),
    0.15,
    's',
  ),
  form(
    'Level of a sine of 5 V',
    '20·lg(5/√2/0.7746)',
    reads(
      { o: ['oscillator', { baseHz: 1000 }], l: ['lineOut', { padDb: 0, dcBlock: false }] },
      ['o.sine > l.left'],
      'l.left',
    ),
    20 * Math.log10(A / Math.SQRT2 / Math.sqrt(0.6)),
    'dBu',
  ),
  form(
    'Major third of a quantizer',
    '4/12',
    at({ a: volts(0.31), q: ['quantizer', { scale: 'major' }] }, ['a.out > q.in'], 'q.out', 'high'),
    4 / 12,
  ),
];

const times = (): Form[] => [
  form('Linear slew of 0.4 s, after 0.1 s', '10/0.4·0.1', step('linear', 0.1), 2.5),
  form('Linear slew of 0.4 s, after 0.2 s', '10/0.4·0.2', step('linear', 0.2), 5),
  form('Exponential slew of 0.4 s, after 0.08 s', '8(1 − e^−1)', step('rc', 0.08), 8 * (1 - Math.exp(-1))),
  form('Exponential slew of 0.4 s, after 0.4 s', '8(1 − e^−5)', step('rc', 0.4), 8 * (1 - Math.exp(-5))),
  form(
    'Envelope, linear attack half way',
    '8/2',
    moment(
      { c: ['clock', { bpm: 30, width: 0.9 }], e: ['envelope', { attack: 0.5, attackCurve: 0, sustain: 1 }] },
      ['c.out > e.gate'],
      'e.out',
      0.25,
    ),
    4,
  ),
  form(
    'Envelope, curved attack half way',
    '8(1 − e^−2.5)/(1 − e^−5)',
    moment(
      { c: ['clock', { bpm: 30, width: 0.9 }], e: ['envelope', { attack: 0.5, attackCurve: 1, sustain: 1 }] },
      ['c.out > e.gate'],
      'e.out',
      0.25,
    ),
    (8 * (1 - Math.exp(-2.5))) / (1 - Math.exp(-5)),
  ),
  form('Low-pass at its cutoff, resonance 0', '1/(2R), 2R = 2', atCutoff(0), 0.5, ''),
  form(
    'Low-pass at its cutoff, resonance ½',
    '1/(2R), 2R = 2(1 − 0.4975)',
    atCutoff(0.5),
    1 / (2 * (1 - 0.995 * 0.5)),
    '',
  ),
  form(
    'Triangle of 0.5 Hz over an eighth of its cycle',
    '2A·¼',
    Math.abs(
      moment({ l: ['lfo', { shape: 'triangle', rateHz: 0.5 }] }, [], 'l.out', 0.5) -
        moment({ l: ['lfo', { shape: 'triangle', rateHz: 0.5 }] }, [], 'l.out', 0.25),
    ),
    (2 * A) / 4,
  ),
];

/** All closed forms. */
export const verifiedForms = (): Form[] => [...sources(), ...shapes(), ...readings(), ...times()];
