import { partsOf, socketAt } from '../document/sockets';
import { OHMS } from '../document/types';
import type { ModuleDoc, Patch } from '../document/types';
import type { Loading } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { parallel } from '../kinds/pot';
import type { Wiring, WiredModule } from './wiring';

export interface Loads {
  /** What is left of an output's voltage at its node. */
  factor(output: string): number;
  of(id: string): Loading;
}

/** Settings of passive pots on their way, by module, in the place of those in the document. */
export type SettingsAt = ReadonlyMap<string, ParamValues>;
const AS_SET: SettingsAt = new Map();

export const isPot = (m: Pick<WiredModule, 'kind' | 'params'>): boolean =>
  m.kind.electrical?.passive?.(m.params)?.is === 'pot';
const isWire = (m: WiredModule): boolean => m.kind.electrical?.passive?.(m.params)?.is === 'wire';

const isJunction = (m: WiredModule): boolean => m.kind.electrical?.joins ?? false;

/** Whether a module's law hangs on what loads it. */
export const isLoaded = (m: Pick<WiredModule, 'kind' | 'params'>): boolean =>
  isPot(m) || (m.kind.electrical?.joins ?? false);

/** In a junction's sum a source has at least this resistance, ohms. */
const LEAST_OHMS = 1;

/**
 * What the cables' loads do to each output: resistive dividers, worked from the loads back to the sources. All of it
 * is linear, so it comes to one factor an output and one weight an input of a junction.
 *
 * An output into a junction is counted there by its Thévenin equivalent (open voltage, source resistance beside its
 * other loads); the junction's inputs are no load of their own.
 */
export function loadingOf(patch: Patch, wiring: Wiring, at: SettingsAt = AS_SET): Loads {
  return patch.settings.loading === 'ideal' ? idealLoads(wiring) : new Resistances(patch.modules, wiring, at);
}

/** Whether an input of a junction is tied to something: a cable, or a normal. */
function isTied(wiring: Wiring, input: string): boolean {
  const feed = wiring.feed(input);
  return feed.by !== 'volts' || feed.declared;
}

function idealLoads(wiring: Wiring): Loads {
  return {
    factor: () => 1,
    of(id) {
      const m = wiring.module(id);
      const used = m ? m.inputSockets.map((input): number => (isTied(wiring, input) ? 1 : 0)) : [];
      const count = used.reduce((sum, x) => sum + x, 0);
      return { potLoad: null, weights: used.map((x) => (count > 0 ? x / count : 0)) };
    },
  };
}

/**
 * Resistances of a wiring. A normal ties an output to an input as a cable does, with the output's resistance behind it,
 * but is no load on it; a normal of a voltage has no resistance.
 */
export class Resistances implements Loads {
  private readonly docs: ReadonlyMap<string, ModuleDoc>;
  /** The inputs that load an output: all that its cables lead to, but for the junctions'. */
  private readonly loadedBy = new Map<string, string[]>();
  private readonly loads = new Map<string, number>();
  /** Looking back: by the input, or by the output where the input is no load of its own. */
  private readonly backwards = new Map<string, number>();

  constructor(
    modules: readonly ModuleDoc[],
    private readonly wiring: Wiring,
    private readonly at: SettingsAt = AS_SET,
  ) {
    this.docs = new Map(modules.map((m) => [m.id, m]));
    for (const { from, to } of wiring.cables) {
      if (this.leadsToJunction(to)) continue;
      const onward = this.loadedBy.get(from);
      if (onward) onward.push(to);
      else this.loadedBy.set(from, [to]);
    }
  }

  private split(socket: string): { part: WiredModule | undefined; id: string; name: string } {
    const { id, name } = partsOf(socket);
    return { part: this.wiring.module(id), id, name };
  }

  private leadsToJunction(input: string): boolean {
    const { part } = this.split(input);
    return part !== undefined && isJunction(part);
  }

  /** All that loads an output, in parallel. */
  private load(output: string): number {
    const known = this.loads.get(output);
    if (known !== undefined) return known;
    this.loads.set(output, Infinity); // A ring of wire loads nothing.
    const total = (this.loadedBy.get(output) ?? []).reduce((sum, to) => parallel(sum, this.inputOhms(to)), Infinity);
    this.loads.set(output, total);
    return total;
  }

  private inputOhms(input: string): number {
    const { part, id, name } = this.split(input);
    if (!part) return Infinity;
    if (isWire(part)) return part.outputs.reduce((sum, o) => parallel(sum, this.load(socketAt(id, o))), Infinity);
    if (isPot(part)) {
      const { above, below, reversed } = this.pot(part);
      const load = this.load(socketAt(id, 'out'));
      return reversed ? parallel(below, above + load) : above + parallel(below, load);
    }
    return this.docs.get(id)?.inputOhms?.[name] ?? OHMS.input;
  }

  private pot(part: WiredModule): { above: number; below: number; reversed: boolean } {
    const pot = part.kind.electrical?.passive?.(this.at.get(part.id) ?? part.params);
    if (pot?.is !== 'pot') return { above: 0, below: Infinity, reversed: false };
    return { above: (1 - pot.position) * pot.ohms, below: pot.position * pot.ohms, reversed: pot.reversed };
  }

  /** An active output's own resistance; wire and pots have none of their own here. */
  private outputOhms(output: string): number {
    const { part, id, name } = this.split(output);
    if (!part || isWire(part) || isPot(part) || isJunction(part)) return 0;
    return this.docs.get(id)?.outputOhms?.[name] ?? OHMS.output;
  }

  factor(output: string): number {
    const rs = this.outputOhms(output);
    const rp = this.load(output);
    return rs === 0 || rp === Infinity ? 1 : rp / (rs + rp);
  }

  /** The loads of an output but for the one at `input`. */
  private otherLoads(output: string, input: string): number {
    const others = (this.loadedBy.get(output) ?? []).filter((to) => to !== input);
    return others.reduce((sum, to) => parallel(sum, this.inputOhms(to)), Infinity);
  }

  /**
   * The resistance that `input` sees, looking back into an output beside its other loads; worked out once a cable, so
   * that chains of junctions cost no more than their length. A ring of wire is taken for 0 ohm where it closes.
   */
  private sourceOhms(output: string, input: string): number {
    const key = this.leadsToJunction(input) ? output : input;
    const known = this.backwards.get(key);
    if (known !== undefined) return known;
    this.backwards.set(key, 0);
    const ohms = this.lookingBack(output, input);
    this.backwards.set(key, ohms);
    return ohms;
  }

  private lookingBack(output: string, input: string): number {
    const { part, id } = this.split(output);
    if (!part) return 0;
    if (isWire(part)) {
      // All its outputs are one node.
      const loads = part.outputs.map((o) => this.otherLoads(socketAt(id, o), input));
      return loads.reduce(parallel, this.feed(socketAt(id, 'in')));
    }
    const load = this.otherLoads(output, input);
    if (isPot(part)) {
      const { above, below, reversed } = this.pot(part);
      const feed = this.feed(socketAt(id, 'in'));
      return parallel(reversed ? above + parallel(below, feed) : parallel(below, above + feed), load);
    }
    if (isJunction(part)) {
      return part.inputSockets.reduce(
        (sum, input) => (isTied(this.wiring, input) ? parallel(sum, this.tieOhms(input)) : sum),
        load,
      );
    }
    return parallel(this.outputOhms(output), load);
  }

  /** The resistance behind an input's cable or normal; 0 without one. */
  feed(input: string): number {
    const feed = this.wiring.feed(input);
    return feed.by === 'volts' ? 0 : this.sourceOhms(feed.from, input);
  }

  private tieOhms(input: string): number {
    return Math.max(LEAST_OHMS, this.feed(input));
  }

  of(id: string): Loading {
    const part = this.wiring.module(id);
    if (part && isJunction(part)) return { potLoad: null, weights: this.junction(part) };
    return { potLoad: part && isPot(part) ? this.load(socketAt(id, 'out')) : null, weights: [] };
  }

  private junction(part: WiredModule): number[] {
    const sources = part.inputSockets.map((input) => (isTied(this.wiring, input) ? 1 / this.tieOhms(input) : 0));
    const load = this.load(socketAt(part.id, 'out'));
    const sum = sources.reduce((total, g) => total + g, load === Infinity ? 0 : 1 / Math.max(load, 1e-9));
    return sources.map((g) => (sum > 0 ? g / sum : 0));
  }
}

const resistances = new WeakMap<object, Resistances>();

/** The resistance behind an input's cable or normal, ohms, whether loading is counted or not; worked out once a graph. */
export function sourceOhmsAt(graph: { readonly patch: Patch; readonly wiring: Wiring }, input: string): number {
  let known = resistances.get(graph);
  if (!known) resistances.set(graph, (known = new Resistances(graph.patch.modules, graph.wiring)));
  return known.feed(input);
}
