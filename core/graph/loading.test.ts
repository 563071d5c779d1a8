import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { glance } from '../answers/glance';
import { BoundsEngine } from '../bounds/bounds';
import { stream } from '../kinds/random';
import { patchOf } from '../testing/patch';
import { buildGraph } from './graph';

const GROUND = -1;

/** Resistors and sources between nodes, solved as a whole by Kirchhoff's current law: nothing of it is worked back. */
class Network {
  private readonly joined: number[] = [];
  private readonly resistors: { readonly a: number; readonly b: number; readonly ohms: number }[] = [];
  private readonly sources: { readonly node: number; readonly volts: number; readonly ohms: number }[] = [];

  node(): number {
    return this.joined.push(this.joined.length) - 1;
  }
  resistor(a: number, b: number, ohms: number): void {
    this.resistors.push({ a, b, ohms });
  }
  source(node: number, volts: number, ohms: number): void {
    this.sources.push({ node, volts, ohms });
  }
  wire(a: number, b: number): void {
    this.joined[this.of(a)] = this.of(b);
  }
  of(node: number): number {
    const next = this.joined[node]!;
    return next === node ? node : this.of(next);
  }

  /** The voltage of each node: conductances times voltages are the currents that come in. */
  solve(): number[] {
    const n = this.joined.length;
    const rows = Array.from({ length: n }, (_, i) => Array.from({ length: n + 1 }, (_, k) => (i === k ? 1e-15 : 0)));
    for (const { a, b, ohms } of this.resistors) {
      const [i, k] = [this.of(a), b === GROUND ? GROUND : this.of(b)];
      rows[i]![i]! += 1 / ohms;
      if (k === GROUND) continue;
      rows[k]![k]! += 1 / ohms;
      rows[i]![k]! -= 1 / ohms;
      rows[k]![i]! -= 1 / ohms;
    }
    for (const { node, volts, ohms } of this.sources) {
      const i = this.of(node);
      rows[i]![i]! += 1 / ohms;
      rows[i]![n]! += volts / ohms;
    }
    // Gauss and Jordan; what is diagonally dominant needs no pivot.
    for (let i = 0; i < n; i++) {
      const own = rows[i]!;
      for (const row of rows) {
        if (row === own || row[i] === 0) continue;
        const times = row[i]! / own[i]!;
        for (let k = i; k <= n; k++) row[k]! -= times * own[k]!;
      }
    }
    return rows.map((row, i) => row[n]! / row[i]!);
  }
}

/** An output, or a passive part's, and its node. */
interface Port {
  readonly socket: string;
  readonly node: number;
}

/** A patch of constant voltages, passive parts and inputs, and the same as a network. */
class Rig {
  readonly parts: Parameters<typeof patchOf>[0] = {};
  readonly cables: string[] = [];
  readonly net = new Network();
  /** Inputs that end a path, and the nodes that they are at. */
  readonly loads: { readonly socket: string; readonly node: number }[] = [];
  private readonly random: () => number;

  constructor(seed: number) {
    this.random = stream(seed);
  }

  upTo(n: number): number {
    return Math.min(n - 1, Math.floor(this.random() * n));
  }
  private ohms(least: number, most: number): number {
    return least * (most / least) ** this.random();
  }
  private add(kind: string, params: object, more: object = {}): string {
    const id = `m${Object.keys(this.parts).length}`;
    Object.assign(this.parts, { [id]: [kind, params, more] });
    return id;
  }

  source(): Port {
    const [volts, ohms, node] = [10 * this.random() - 5, this.ohms(50, 40_000), this.net.node()];
    this.net.source(node, volts, ohms);
    return { socket: `${this.add('constant', { volts }, { outputOhms: { out: ohms } })}.out`, node };
  }
  load({ socket, node }: Port): void {
    const ohms = this.ohms(5000, 1_000_000);
    const id = this.add('offset', {}, { inputOhms: { in: ohms } });
    this.cables.push(`${socket} > ${id}.in`);
    this.net.resistor(node, GROUND, ohms);
    this.loads.push({ socket: `${id}.in`, node });
  }
  pot({ socket, node }: Port): Port {
    const [amount, potOhms, out] = [0.05 + 0.9 * this.random(), this.ohms(2000, 500_000), this.net.node()];
    const reversed = this.upTo(3) === 0;
    const id = this.add('attenuator', { amount, build: 'passive', potOhms, reversed });
    this.cables.push(`${socket} > ${id}.in`);
    this.net.resistor(node, out, (1 - amount) * potOhms);
    this.net.resistor(reversed ? node : out, GROUND, amount * potOhms);
    return { socket: `${id}.out`, node: out };
  }
  mult({ socket, node }: Port): Port[] {
    const id = this.add('mult', { build: 'passive' });
    this.cables.push(`${socket} > ${id}.in`);
    return Array.from({ length: 2 + this.upTo(3) }, (_, i) => ({ socket: `${id}.out${i + 1}`, node }));
  }
  junction(ports: readonly Port[]): Port {
    const id = this.add('junction', {});
    const node = this.net.node();
    ports.forEach((port, i) => {
      this.cables.push(`${port.socket} > ${id}.in${i + 1}`);
      this.net.wire(port.node, node);
    });
    return { socket: `${id}.out`, node };
  }

  /** What leads to a junction leads nowhere else. */
  chain(depth: number): Port {
    let port = depth > 0 && this.upTo(4) === 0 ? this.meeting(depth - 1) : this.source();
    for (let n = this.upTo(3); n > 0; n--) port = this.pot(port);
    return port;
  }
  meeting(depth: number): Port {
    return this.junction(Array.from({ length: 2 + this.upTo(3) }, () => this.chain(depth)));
  }
  /** One to three things at one output. */
  spread(port: Port, depth: number): void {
    for (let n = 1 + this.upTo(3); n > 0; n--) {
      const way = depth > 0 ? this.upTo(3) : 0;
      if (way === 0) this.load(port);
      else if (way === 1) this.spread(this.pot(port), depth - 1);
      else for (const out of this.mult(port)) this.spread(out, depth - 1);
    }
  }
}

/** What arrives at each load by the core, and by the network. */
function arrives(rig: Rig): { readonly told: number[]; readonly solved: number[] } {
  const graph = buildGraph(patchOf(rig.parts, rig.cables, { duration: 0.1 }));
  const { inputs } = glance(graph, new BoundsEngine().run(graph));
  const volts = rig.net.solve();
  return {
    told: rig.loads.flatMap(({ socket }) => [...inputs[socket]!.bound]),
    solved: rig.loads.flatMap(({ node }) => [volts[rig.net.of(node)]!, volts[rig.net.of(node)]!]),
  };
}

describe('what loads do to passive parts', () => {
  it('is what Kirchhoff’s laws say of the whole network at once', () => {
    fc.assert(
      fc.property(fc.nat(), fc.boolean(), (seed, meets) => {
        const rig = new Rig(seed);
        rig.spread(meets ? rig.meeting(1) : rig.source(), 2);
        const { told, solved } = arrives(rig);
        expect(told.length).toBeGreaterThan(0);
        told.forEach((volts, i) => expect(volts).toBeCloseTo(solved[i]!, 9));
      }),
      { numRuns: 150 },
    );
  });
  it('halves a voltage at an input as large as its source, and again at two of them by a third', () => {
    const at = (inputs: number): number[] => {
      const parts = Object.fromEntries(
        Array.from({ length: inputs }, (_, i) => [`u${i}`, ['offset', {}, { inputOhms: { in: 10_000 } }]]),
      );
      const patch = patchOf(
        { s: ['constant', { volts: 3 }, { outputOhms: { out: 10_000 } }], ...parts } as never,
        Array.from({ length: inputs }, (_, i) => `s.out > u${i}.in`),
      );
      const graph = buildGraph(patch);
      return Object.values(glance(graph, new BoundsEngine().run(graph)).inputs).map((p) => p.bound[1]);
    };
    expect(at(1)).toEqual([expect.closeTo(1.5, 12)]);
    expect(at(2)).toEqual([expect.closeTo(1, 12), expect.closeTo(1, 12)]);
  });
  it('leaves a reversed pot its source, and of it what its load allows', () => {
    const at = (amount: number, sourceOhms: number) => {
      const patch = patchOf(
        {
          s: ['constant', { volts: 4 }, { outputOhms: { out: sourceOhms } }],
          k: ['attenuator', { amount, build: 'passive', potOhms: 100_000, reversed: true }],
          u: ['offset', {}, { inputOhms: { in: 100_000 } }],
        } as never,
        ['s.out > k.in', 'k.out > u.in'],
      );
      const graph = buildGraph(patch);
      return glance(graph, new BoundsEngine().run(graph)).inputs['u.in']!.bound[1];
    };
    // L/((1 − k)R + L) of a source without resistance, at k = 0 too; of another nothing is left there.
    expect([at(0, 0), at(0.5, 0), at(1, 0)]).toEqual([2, 4 / 1.5, 4].map((v) => expect.closeTo(v, 9)));
    expect(at(0, 1000)).toBeCloseTo(0, 9);
    // 50k ∥ (50k + 100k) behind 1k.
    expect(at(0.5, 1000)).toBeCloseTo((4 * (37_500 / 38_500)) / 1.5, 9);
  });
  it('is nothing where loads are told to be ideal, but junctions still average', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const rig = new Rig(seed);
        rig.spread(rig.pot(rig.source()), 1);
        const patch = patchOf(rig.parts, rig.cables, { loading: 'ideal' });
        const graph = buildGraph(patch);
        const { inputs, outputs } = glance(graph, new BoundsEngine().run(graph));
        const [source, pot] = patch.modules;
        const first = Number(source!.params!.volts) * Number(pot!.params!.amount);
        expect(outputs[`${pot!.id}.out`]!.bound[0]).toBeCloseTo(first, 12);
        for (const { from, to } of patch.cables)
          expect(inputs[to]!.bound[0], `${from} > ${to}`).toBeCloseTo(outputs[from]!.bound[0], 12);
      }),
      { numRuns: 40 },
    );
    const two = patchOf(
      { a: ['constant', { volts: 1 }], b: ['constant', { volts: 4 }], j: ['junction'], u: ['offset'] },
      ['a.out > j.in1', 'b.out > j.in2', 'j.out > u.in'],
      { loading: 'ideal' },
    );
    const graph = buildGraph(two);
    expect(glance(graph, new BoundsEngine().run(graph)).inputs['u.in']!.bound[0]).toBeCloseTo(2.5, 12);
  });
});
