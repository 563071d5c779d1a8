import { socketAt } from '../document/sockets';
import { OHMS } from '../document/types';
import type { Patch } from '../document/types';
import type { Kind, Loading } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';

export interface Part {
  readonly id: string;
  readonly kind: Pick<Kind, 'joins' | 'passive'>;
  readonly params: ParamValues;
  readonly inputs: readonly { readonly name: string }[];
  readonly outputs: readonly string[];
}

export interface Loads {
  /** What is left of an output's voltage at its node. */
  factor(output: string): number;
  of(id: string): Loading;
}

const parallel = (a: number, b: number): number =>
  a === Infinity ? b : b === Infinity ? a : a === 0 || b === 0 ? 0 : (a * b) / (a + b);

const isPot = (p: Part): boolean => p.kind.passive?.(p.params)?.is === 'pot';
const isWire = (p: Part): boolean => p.kind.passive?.(p.params)?.is === 'wire';

const isJunction = (p: Part): boolean => p.kind.joins ?? false;

/** In a junction's sum a source has at least this resistance, ohms. */
const LEAST_OHMS = 1;

/**
 * What the cables' loads do to each output: resistive dividers, worked from the loads back to the sources. All of it
 * is linear, so it comes to one factor an output and one weight an input of a junction.
 *
 * An output into a junction is counted there by its Thévenin equivalent (open voltage, source resistance beside its
 * other loads); the junction's inputs are no load of their own.
 */
export function loadingOf(patch: Patch, parts: readonly Part[]): Loads {
  if (patch.settings.loading === 'ideal') return idealLoads(patch, parts);
  return new Resistances(patch, parts);
}

function idealLoads(patch: Patch, parts: readonly Part[]): Loads {
  const plugged = new Set(patch.cables.map((c) => c.to));
  const byId = new Map(parts.map((p) => [p.id, p]));
  return {
    factor: () => 1,
    of(id) {
      const part = byId.get(id);
      const used = (part?.inputs ?? []).map((s) => (plugged.has(socketAt(id, s.name)) ? 1 : 0));
      const count = used.reduce<number>((sum, x) => sum + x, 0);
      return { potGain: Number(part?.params.amount ?? 1), weights: used.map((x) => (count > 0 ? x / count : 0)) };
    },
  };
}

export class Resistances implements Loads {
  private readonly byId: ReadonlyMap<string, Part>;
  private readonly ohms: ReadonlyMap<string, Patch['modules'][number]>;
  private readonly into = new Map<string, string>();
  /** The inputs that load an output: all that its cables lead to, but for the junctions'. */
  private readonly loadedBy = new Map<string, string[]>();
  private readonly loads = new Map<string, number>();
  /** Looking back: by the input, or by the output where the input is no load of its own. */
  private readonly backwards = new Map<string, number>();

  constructor(patch: Patch, parts: readonly Part[]) {
    this.byId = new Map(parts.map((p) => [p.id, p]));
    this.ohms = new Map(patch.modules.map((m) => [m.id, m]));
    for (const { from, to } of patch.cables) {
      this.into.set(to, from);
      if (this.leadsToJunction(to)) continue;
      const onward = this.loadedBy.get(from);
      if (onward) onward.push(to);
      else this.loadedBy.set(from, [to]);
    }
  }

  private split(socket: string): { part: Part | undefined; id: string; name: string } {
    const dot = socket.indexOf('.');
    const id = socket.slice(0, dot);
    return { part: this.byId.get(id), id, name: socket.slice(dot + 1) };
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
      const { above, below } = this.pot(part);
      return above + parallel(below, this.load(socketAt(id, 'out')));
    }
    return this.ohms.get(id)?.inputOhms?.[name] ?? OHMS.input;
  }

  private pot(part: Part): { above: number; below: number } {
    const pot = part.kind.passive?.(part.params);
    if (pot?.is !== 'pot') return { above: 0, below: Infinity };
    return { above: (1 - pot.position) * pot.ohms, below: pot.position * pot.ohms };
  }

  /** An active output's own resistance; wire and pots have none of their own here. */
  private outputOhms(output: string): number {
    const { part, id, name } = this.split(output);
    if (!part || isWire(part) || isPot(part) || isJunction(part)) return 0;
    return this.ohms.get(id)?.outputOhms?.[name] ?? OHMS.output;
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
      const { above, below } = this.pot(part);
      return parallel(parallel(below, above + this.feed(socketAt(id, 'in'))), load);
    }
    if (isJunction(part)) {
      return part.inputs.reduce((sum, s) => {
        const socket = socketAt(id, s.name);
        return this.into.has(socket) ? parallel(sum, Math.max(LEAST_OHMS, this.feed(socket))) : sum;
      }, load);
    }
    return parallel(this.outputOhms(output), load);
  }

  /** The resistance behind an input's cable; 0 without one. */
  feed(input: string): number {
    const from = this.into.get(input);
    return from === undefined ? 0 : this.sourceOhms(from, input);
  }

  of(id: string): Loading {
    const part = this.byId.get(id);
    if (part && isJunction(part)) return { potGain: 1, weights: this.junction(part) };
    if (!part || !isPot(part)) return { potGain: 1, weights: [] };
    const { above, below } = this.pot(part);
    const under = parallel(below, this.load(socketAt(id, 'out')));
    // Full up there is no resistance in series, and the output is its input.
    return { potGain: under === 0 ? 0 : above === 0 ? 1 : under / (above + under), weights: [] };
  }

  private junction(part: Part): number[] {
    const sources = part.inputs.map((s) => {
      const socket = socketAt(part.id, s.name);
      return this.into.has(socket) ? 1 / Math.max(LEAST_OHMS, this.feed(socket)) : 0;
    });
    const load = this.load(socketAt(part.id, 'out'));
    const sum = sources.reduce((total, g) => total + g, load === Infinity ? 0 : 1 / Math.max(load, 1e-9));
    return sources.map((g) => (sum > 0 ? g / sum : 0));
  }
}
