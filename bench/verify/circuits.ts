import type { Patch } from '../../core/document/types';
import { predict } from '../../core/answers/predict';
import { simulate } from '../../core/simulate/simulate';
import { stream } from '../../core/kinds/random';
import { patchOf } from '../../core/testing/patch';
import { Netlist } from './netlist';
import { operatingPoint, transient } from './spice';

/** A circuit that was worked out twice: by the core, and by a general circuit simulator. */
export interface Verified {
  readonly family: string;
  readonly name: string;
  /** How many voltages were compared. */
  readonly compared: number;
  /** The greatest difference between the two, volts. */
  readonly off: number;
}

type Part = readonly [kind: string, params?: Record<string, number | string | boolean>, more?: object];

/** Drawn values, the same with every run. */
class Draws {
  private readonly random: () => number;
  constructor(seed: number) {
    this.random = stream(seed);
  }
  between = (low: number, high: number): number => low + (high - low) * this.random();
  whole = (low: number, high: number): number => Math.floor(this.between(low, high + 1));
  chance = (share: number): boolean => this.random() < share;
  ohms = (low: number, high: number): number => Math.round(low * (high / low) ** this.random());
}

const source = (d: Draws): Part => [
  'constant',
  { volts: Number(d.between(-5, 5).toFixed(4)), lowVolts: -5, highVolts: 5 },
  { outputOhms: { out: d.ohms(10, 5000) } },
];
const load = (d: Draws): Part => ['inverter', {}, { inputOhms: { in: d.ohms(10_000, 1_000_000) } }];
const pot = (d: Draws): Part => [
  'attenuator',
  {
    build: 'passive',
    amount: Number(d.between(0.05, 0.95).toFixed(3)),
    potOhms: d.ohms(5000, 500_000),
    reversed: d.chance(0.25),
  },
];

interface Drawing {
  readonly parts: Record<string, Part>;
  readonly cables: string[];
}

/** One after the other, each loaded by the next and by a load of its own now and then. */
function pots(d: Draws): Drawing {
  const parts: Record<string, Part> = { s: source(d) };
  const cables: string[] = [];
  let from = 's.out';
  for (let i = 1; i <= d.whole(1, 3); i++) {
    parts[`p${i}`] = pot(d);
    cables.push(`${from} > p${i}.in`);
    from = `p${i}.out`;
    if (!d.chance(0.4)) continue;
    parts[`t${i}`] = load(d);
    cables.push(`${from} > t${i}.in`);
  }
  parts.last = load(d);
  return { parts, cables: [...cables, `${from} > last.in`] };
}

/** A wire to several loads, some of them pots. */
function mults(d: Draws): Drawing {
  const parts: Record<string, Part> = { s: source(d), m: ['mult', { build: 'passive' }] };
  const cables = ['s.out > m.in'];
  for (let i = 1; i <= d.whole(2, 4); i++) {
    parts[`x${i}`] = d.chance(0.4) ? pot(d) : load(d);
    cables.push(`m.out${i} > x${i}.in`);
    if (parts[`x${i}`]?.[0] !== 'attenuator') continue;
    parts[`y${i}`] = load(d);
    cables.push(`x${i}.out > y${i}.in`);
  }
  return { parts, cables };
}

/** Outputs tied together, with a load. */
function junctions(d: Draws): Drawing {
  const parts: Record<string, Part> = { j: ['junction'], l: load(d) };
  const cables = ['j.out > l.in'];
  for (let i = 1; i <= d.whole(2, 4); i++) {
    parts[`s${i}`] = source(d);
    cables.push(`s${i}.out > j.in${i}`);
  }
  return { parts, cables };
}

/** Buffered stages one after the other, each behind a resistance of its own. */
function stages(d: Draws): Drawing {
  const amount = (): number => Number(d.between(-1, 1).toFixed(3));
  const own = (): object => ({ outputOhms: { out: d.ohms(10, 2000) } });
  return {
    parts: {
      s: source(d),
      t: source(d),
      a: ['attenuverter', { amount: amount() }, own()],
      o: [
        'offset',
        {
          amount: amount(),
          volts: Number(d.between(-3, 3).toFixed(3)),
          order: d.chance(0.5) ? 'shiftThenScale' : 'scaleThenShift',
        },
        own(),
      ],
      m: [
        'mixer',
        {
          gain1: Number(d.between(0, 1).toFixed(3)),
          gain2: Number(d.between(0, 1).toFixed(3)),
          inverting: d.chance(0.5),
        },
        own(),
      ],
      l: load(d),
    },
    cables: ['s.out > a.in', 'a.out > o.in', 'o.out > m.in1', 't.out > m.in2', 'm.out > l.in'],
  };
}

/** A voltage through a linear VCA, whose control hangs on a pot. */
function vcas(d: Draws): Drawing {
  return {
    parts: {
      s: source(d),
      c: ['constant', { volts: Number(d.between(0, 5).toFixed(3)) }, { outputOhms: { out: d.ohms(10, 3000) } }],
      p: pot(d),
      v: [
        'vca',
        {
          cvAmount: Number(d.between(0.1, 1).toFixed(3)),
          bias: Number(d.between(-1, 2).toFixed(3)),
          unityVolts: 5,
          bleed: Number(d.between(-0.05, 0.05).toFixed(4)),
        },
        { outputOhms: { out: d.ohms(10, 2000) } },
      ],
      l: load(d),
    },
    cables: ['s.out > v.in', 'c.out > p.in', 'p.out > v.cv', 'v.out > l.in'],
  };
}

/** Sockets at which both are asked: all inputs that something is plugged into, and outputs that lead on. */
function comparedIn(patch: Patch, cables: readonly string[]): string[] {
  const tied = new Set(patch.modules.filter((m) => m.kind === 'junction').map((m) => m.id));
  // What is tied to a junction is told at the junction.
  return cables.map((c) => c.split(' > ')[1] ?? '').filter((socket) => !tied.has(socket.split('.')[0] ?? ''));
}

function steady(family: string, n: number, draw: (d: Draws) => Drawing): Verified {
  const { parts, cables } = draw(new Draws(1000 * family.length + n));
  const patch = patchOf(parts as never, cables, { duration: 0.1, railVolts: 24 });
  const net = new Netlist(patch);
  const sockets = comparedIn(patch, cables);
  const theirs = operatingPoint(
    net.lines,
    sockets.map((s) => net.node(s)),
  );
  const { inputs } = predict(patch, { simulation: false });
  const off = sockets.map((s, i) => Math.abs((inputs[s]?.arrives[0] ?? Number.NaN) - (theirs[i] ?? Number.NaN)));
  return { family, name: `${family} ${n}`, compared: sockets.length, off: Math.max(...off) };
}

/** A step through an exponential slew, and through a resistor and a capacitor of a fifth of its time. */
function lag(n: number): Verified {
  const d = new Draws(77 + n);
  const [from, to, rise] = [
    Number(d.between(-5, 0).toFixed(3)),
    Number(d.between(1, 6).toFixed(3)),
    Number(d.between(0.02, 0.5).toFixed(3)),
  ];
  const duration = 0.1 + 1.5 * rise;
  const points = [0, 0.05, 0.05, duration].map((t, i) => ({ t: i === 2 ? 0.05 + 1e-6 : t, volts: i < 2 ? from : to }));
  const patch = patchOf(
    { g: ['gesture', { points: points as never }], w: ['slew', { law: 'rc', rise, fall: rise }] },
    ['g.out > w.in'],
    { duration, sampleRate: 48_000 },
  );
  const simulation = simulate(patch, { traces: ['w.out'] });
  const trace = simulation.traces.get('w.out') ?? new Float64Array(1);
  // At samples: between them the core says nothing.
  const times = [0.1, 0.25, 0.5, 0.75, 1, 1.4].map((share) => Math.round((0.05 + share * rise) * 48_000) / 48_000);
  const tau = rise / 5;
  const lines = [
    `Vg in 0 PWL(0 ${from} 0.05 ${from} 0.050000001 ${to} ${duration} ${to})`,
    'Rw in out 1k',
    `Cw out 0 ${tau / 1000} IC=${from}`,
  ];
  const theirs = transient(lines, 'out', times);
  const ours = times.map((t) => trace[Math.round(t * simulation.sampleRate)] ?? Number.NaN);
  return {
    family: 'RC lags, a step over time',
    name: `lag ${n}`,
    compared: times.length,
    off: Math.max(...ours.map((v, i) => Math.abs(v - (theirs[i] ?? Number.NaN)))),
  };
}

const FAMILIES: readonly (readonly [string, (d: Draws) => Drawing])[] = [
  ['Passive pots under load', pots],
  ['Passive mults to several loads', mults],
  ['Outputs joined', junctions],
  ['Buffered stages behind resistances', stages],
  ['Linear VCAs with a loaded control', vcas],
];
/** Circuits a family. */
const EACH = 10;

const numbers = Array.from({ length: EACH }, (_, i) => i + 1);

/** All circuits, worked out twice. */
export const verifiedCircuits = (): Verified[] => [
  ...FAMILIES.flatMap(([family, draw]) => numbers.map((n) => steady(family, n, draw))),
  ...numbers.map(lag),
];
