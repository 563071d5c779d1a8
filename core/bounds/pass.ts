import { alike } from '../graph/alike';
import type { Driver, Graph, GraphModule } from '../graph/graph';
import type { Edge, Group } from '../graph/order';
import { ROUNDING } from '../kinds/detect';
import type { Sockets } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { AtomStore } from '../law/builder';
import { affine, constant, idOf } from '../law/affine';
import type { Affine, Range } from '../law/affine';
import { Hash } from '../law/hash';
import { constantOf, same } from './entries';
import type { EndBound, Entry, Known, Loop } from './entries';
import { handsAsVoltages, hasHand, hullAt, hullOf, movedLaw, passedSettings } from './hands';
import type { Tightener } from './tighten';

/** Rounds of narrowing for a loop, at most; and module by round, so that a great tangle does not take minutes. */
const ROUNDS = 50;
const MOST_ROUNDS_WORK = 1600;

/**
 * Modules that neither run by themselves nor draw are the same voltage where their settings and inputs are: followers
 * of one clock, reset or signal stay tied.
 */
function identityOf(m: GraphModule, inputs: readonly Affine[]): number {
  const connected = (name: string): boolean => m.inputs.some((s) => s.spec.name === name && s.connected);
  if (m.hands.length > 0 || (m.kind.source?.free?.(m.params, connected) ?? false)) return new Hash().text(m.id).sum;
  const hash = new Hash().text('').text(m.kind.name);
  m.inputs.forEach((s, i) => hash.number(Number(s.connected)).number(idOf(inputs[i] as Affine)));
  for (const [name, value] of Object.entries(m.params)) hash.text(name).value(value);
  return hash.sum;
}

const keyOfOutput = ({ module, output }: { readonly module: number; readonly output: number }): string =>
  `${module}:${output}`;

/** One working-out of a graph's bounds, group by group. */
export class Pass {
  private readonly railVolts: number;
  private readonly outputs = new Map<number, readonly Affine[]>();
  /** What the delayed cables of a loop carry, by module and output. */
  private readonly delayed = new Map<string, Affine>();
  private coarse = false;
  private readonly range = (x: Affine): Range => (this.coarse ? this.tightener.coarse(x) : this.tightener.range(x));

  constructor(
    private readonly graph: Graph,
    private readonly store: AtomStore,
    private readonly before: Known,
    private readonly next: Known,
    private readonly tightener: Tightener,
  ) {
    this.railVolts = graph.patch.settings.railVolts;
  }

  group(group: Group<Edge>): void {
    if (group.loop) this.loop(group);
    else group.modules.forEach((m) => this.module(m));
  }

  /** A loop of which nothing changed keeps its answer as a whole. */
  private loop(group: Group<Edge>): void {
    const members = group.modules.map((i) => this.graph.modules[i] as GraphModule);
    const [first] = members;
    if (!first) return;
    const inside = new Set(group.modules);
    const outside: Affine[] = [];
    const wires: string[] = [];
    for (const { inputs } of members) {
      for (const { driver } of inputs) {
        if (driver.type === 'output' && inside.has(driver.module))
          wires.push(`${this.graph.modules[driver.module]?.id} ${driver.output} ${driver.delayed}`);
        else {
          // The place is kept among the wires: the same two voltages at two swapped inputs are another loop.
          wires.push('-');
          outside.push(this.carried(driver));
        }
      }
    }
    const now: Loop = { members, outside, wires: wires.join() };
    const known = this.before.loops.get(first.id);
    const keeps =
      known?.wires === now.wires &&
      known.members.length === members.length &&
      same(known.outside, outside) &&
      members.every((m, i) => this.keeps(m, known.members[i] as GraphModule));
    if (keeps) for (const m of members) this.keep(m.index, m.id, this.before.entries.get(m.id) as Entry);
    else this.narrow(group);
    this.next.loops.set(first.id, now);
  }

  private keeps(m: GraphModule, known: GraphModule): boolean {
    const entry = this.before.entries.get(m.id);
    return entry?.railVolts === this.railVolts && !entry.coarse && m.id === known.id && alike(known, m);
  }

  private keep(index: number, id: string, entry: Entry): void {
    this.outputs.set(index, entry.outputs);
    this.next.entries.set(id, entry);
  }

  /** From the rails inward: every round's answer is sound, and none is wider than the one before it. */
  private narrow(group: Group<Edge>): void {
    const members = group.modules.map((i) => this.graph.modules[i] as GraphModule);
    const cut = members.flatMap((m) =>
      m.inputs.flatMap((s) => (s.driver.type === 'output' && s.driver.delayed ? [s.driver] : [])),
    );
    const rail = this.railVolts;
    const ranges = new Map<string, Range>(cut.map((d) => [keyOfOutput(d), [-rail, rail]]));
    const socketOf = (d: (typeof cut)[number]): string => this.graph.modules[d.module]?.outputs[d.output]?.socket ?? '';
    const sockets = new Map(cut.map((d) => [keyOfOutput(d), socketOf(d)]));
    const run = (): void => {
      for (const [key, [lo, hi]] of ranges) {
        // By its socket: a place in the list is another module's after one is removed.
        this.delayed.set(key, this.store.leaf(`delayed ${sockets.get(key)}`, lo, hi));
      }
      members.forEach((m) => this.module(m.index));
    };
    this.coarse = true;
    const rounds = Math.min(ROUNDS, Math.ceil(MOST_ROUNDS_WORK / members.length));
    for (let round = 0, moved = Infinity; round < rounds && moved > 1e-12; round++) {
      run();
      moved = 0;
      for (const d of cut) {
        const key = keyOfOutput(d);
        const [lo, hi] = this.range((this.outputs.get(d.module) as readonly Affine[])[d.output] as Affine);
        const [oldLo, oldHi] = ranges.get(key) as Range;
        const now: Range = [Math.max(oldLo, Math.min(0, lo)), Math.min(oldHi, Math.max(0, hi))];
        moved = Math.max(moved, now[0] - oldLo, oldHi - now[1]);
        ranges.set(key, now);
      }
    }
    this.coarse = false;
    this.tightener.narrowed();
    run();
  }

  private inputs(m: GraphModule): Affine[] {
    return m.inputs.map(({ driver }) => this.carried(driver));
  }

  private carried(driver: Driver): Affine {
    if (driver.type === 'volts') return constantOf(driver.volts);
    if (driver.delayed) return this.delayed.get(keyOfOutput(driver)) as Affine;
    // What a partial graph leaves out is never asked for: it carries 0 V.
    return this.outputs.get(driver.module)?.[driver.output] ?? constantOf(0);
  }

  private module(index: number): void {
    const m = this.graph.modules[index] as GraphModule;
    const inputs = this.inputs(m);
    const known = this.next.entries.get(m.id) ?? this.before.entries.get(m.id);
    const keeps =
      known !== undefined &&
      known.coarse === this.coarse &&
      known.railVolts === this.railVolts &&
      same(known.inputs, inputs) &&
      alike(known.module, m);
    const entry = keeps ? known : this.work(m, inputs);
    this.keep(index, m.id, entry);
  }

  private work(m: GraphModule, inputs: readonly Affine[]): Entry {
    const rail = this.railVolts;
    const place = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
    let own: { readonly identity: number; readonly most: number } | null = null;
    const wired: Sockets = {
      in: (name) => inputs[place(name)] ?? constant(0),
      connected: (name) => m.inputs[place(name)]?.connected ?? false,
      symbol: (name, lo, hi) => {
        const { identity, most } = (own ??= { identity: identityOf(m, inputs), most: beforeRails(m, rail) });
        const [least, greatest] = [Math.max(-most, Math.min(most, lo)), Math.min(most, Math.max(-most, hi))];
        return this.store.symbol(identity, name, least, greatest);
      },
      turns: (param) => hasHand(m, param),
      range: this.range,
      loading: m.loading,
    };
    const { module: swept, io } = handsAsVoltages(this.store, m, wired);
    const passed = passedSettings(this.store, swept, io);
    const law = movedLaw(this.store, swept, passed, io);
    const wholes = m.outputs.map((o) => affine(law[o.name] ?? constant(0), o.gain ?? 1, o.offset ?? 0));
    const outputs = m.outputs.map((o, i) => {
      const whole = this.saturate(wholes[i] ?? constant(0));
      // Hands on passive pots load what drives them more and less.
      return o.factors
        ? this.store.mul(whole, this.store.leaf(`load on ${o.socket}`, ...o.factors))
        : affine(whole, o.factor);
    });
    const drives = (m.kind.ends ?? []).map((end) =>
      hullAt(this.store, m, passed, `drive of ${end.socket}`, this.range, (p) => end.drive(this.store, p, io)),
    );
    const ends = drives.map((drive, i) => ({
      end: i,
      drive: this.driven(drive),
      ...this.endPassed(m, i, passed.settings, io),
    }));
    const unclipped = wholes.map(this.range);
    const gateStates = passed.settings.map((p) => m.kind.timing?.detects?.gateState(this.store, p, io) ?? null);
    const gateState = gateStates.every((f) => f === gateStates[0]) ? (gateStates[0] ?? null) : 'moves';
    const uncut = (m.kind.stage?.clips?.(this.store, swept.params, io) ?? []).map((_, i) =>
      hullOf(passed.settings.map((p) => this.range(m.kind.stage?.clips?.(this.store, p, io)[i]?.value ?? constant(0)))),
    );
    const bounds = {
      outputs: outputs.map(this.range),
      unclipped,
      uncut,
      inputs: inputs.map(this.range),
      ends,
      gateState,
    };
    return { module: m, coarse: this.coarse, railVolts: rail, inputs, outputs, drives, bounds };
  }

  /** What a destination gets at each of the settings that hands pass. */
  private endPassed(m: GraphModule, index: number, passed: readonly ParamValues[], io: Sockets): Partial<EndBound> {
    const end = m.kind.ends?.[index];
    if (!end || m.hands.length === 0) return {};
    return { passed: passed.map((params) => ({ params, drive: this.driven(end.drive(this.store, params, io)) })) };
  }

  /** How far a drive goes; what ends a rounding beside 0 V ends there: an amplifier is silent at 0 V, and not above. */
  private driven(drive: Affine): Range {
    const [lo, hi] = this.range(drive);
    return [lo > 0 && lo < ROUNDING ? 0 : lo, hi < 0 && hi > -ROUNDING ? 0 : hi];
  }

  /** The rails; left out where the value is sure to stay inside. */
  private saturate(x: Affine): Affine {
    const rail = this.railVolts;
    const [lo, hi] = this.range(x);
    return lo >= -rail && hi <= rail ? x : this.store.clamp(x, -rail, rail);
  }
}

/** A little beyond where its outputs' own errors bring a module to the rails: what goes there is clipped, and seen to be. */
const BEYOND = 1.001;

/** The most that a voltage within a module counts for, either way, before its outputs' own errors and the rails. */
const beforeRails = ({ outputs }: GraphModule, rail: number): number =>
  Math.max(
    rail,
    ...outputs.map(({ gain = 1, offset = 0 }) =>
      gain === 1 && offset === 0 ? rail : (BEYOND * (rail + Math.abs(offset))) / Math.abs(gain),
    ),
  );
