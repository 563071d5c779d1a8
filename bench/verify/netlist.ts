import type { ModuleDoc, Patch } from '../../core/document/types';
import { partsOf, socketAt } from '../../core/document/sockets';
import { completeParams } from '../../core/document/params';
import { kindNamed } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import { buildGraph } from '../../core/graph/graph';

/**
 * A patch as a circuit for a general simulator, from the kinds' formulas as docs/kinds.md has them and from nothing that
 * the core works out: outputs are sources behind their resistance, inputs are resistors to ground, passive modules are
 * resistors and wire.
 */

const INPUT_OHMS = 100_000;
/** In the place of none at all: a resistor needs some, ohms. */
const LEAST = 1e-6;

type Params = Readonly<Record<string, number | string | boolean>>;

/** What an output is of the voltages at its module's inputs, as the simulator writes it; by kind. */
const LAWS: Readonly<Record<string, (p: Params, v: (input: string) => string) => Readonly<Record<string, string>>>> = {
  constant: (p) => ({ out: `${Number(p.volts)}` }),
  attenuator: (p, v) => ({ out: `${Number(p.amount)}*(${v('in')})` }),
  attenuverter: (p, v) => ({ out: `${Number(p.amount)}*(${v('in')})` }),
  inverter: (_p, v) => ({ out: `-(${v('in')})` }),
  mult: (_p, v) => ({ out1: v('in'), out2: v('in'), out3: v('in'), out4: v('in') }),
  offset: (p, v) => ({
    out:
      p.order === 'shiftThenScale'
        ? `${Number(p.amount)}*((${v('in')})+${Number(p.volts)})`
        : `${Number(p.amount)}*(${v('in')})+${Number(p.volts)}`,
  }),
  mixer: (p, v) => {
    const sum = [1, 2, 3, 4].map((i) => `${Number(p[`gain${i}`])}*(${v(`in${i}`)})`).join('+');
    const whole = `(${sum})+${Number(p.biasVolts)}`;
    return { out: p.inverting === true ? `-(${whole})` : whole };
  },
  vca: (p, v) => {
    const c = `(${Number(p.cvAmount)}*(${v('cv')})+${v('cv2')}+${Number(p.bias)})`;
    const x = `max(0,${c})/${Number(p.unityVolts)}`;
    const gain = Number(p.response) === 0 ? x : null;
    if (gain === null) throw new Error('only the linear response is written here');
    return { out: `(${gain})*((${v('in')})+(${v('in2')}))+${Number(p.bleed) + Number(p.bleedTrim)}*${c}` };
  },
};

/** @throws where there is no such kind. */
function kindOf({ kind }: ModuleDoc): Kind {
  const found = kindNamed(kind);
  if (!found) throw new Error(`there is no ${kind}`);
  return found;
}

/** Lines of a netlist, and the node of every socket. */
export class Netlist {
  readonly lines: string[] = [];
  private readonly nodes = new Map<string, string>();

  constructor(patch: Patch) {
    const { cables } = buildGraph(patch).wiring;
    const into = new Map(cables.map((c) => [c.to, c.from]));
    const modules = new Map(patch.modules.map((m) => [m.id, m]));
    const passive = (m: ModuleDoc): boolean =>
      m.kind === 'junction' || completeParams(kindOf(m), m.params).build === 'passive';
    const nodeOfOutput = (socket: string): string => {
      const { id, name } = partsOf(socket);
      const m = modules.get(id);
      // Wire: its outputs are its input's node; a junction is one node for all that is plugged into it.
      if (m?.kind === 'mult' && passive(m)) return nodeOfInput(socketAt(id, 'in'));
      return `n_${id}_${name}`;
    };
    const nodeOfInput = (socket: string): string => {
      const from = into.get(socket);
      return from === undefined ? `n_${partsOf(socket).id}_${partsOf(socket).name}_open` : nodeOfOutput(from);
    };
    for (const m of patch.modules) this.module(m, { into, passive: passive(m), nodeOfInput, nodeOfOutput });
    for (const m of patch.modules) {
      const kind = kindOf(m);
      const params = completeParams(kind, m.params);
      for (const o of kind.outputs(params)) this.nodes.set(socketAt(m.id, o), nodeOfOutput(socketAt(m.id, o)));
      for (const i of kind.inputs(params)) this.nodes.set(socketAt(m.id, i.name), nodeOfInput(socketAt(m.id, i.name)));
    }
  }

  node(socket: string): string {
    return this.nodes.get(socket) ?? '0';
  }

  private resistor(name: string, a: string, b: string, ohms: number): void {
    this.lines.push(`R${name} ${a} ${b} ${Math.max(LEAST, ohms)}`);
  }

  private module(
    m: ModuleDoc,
    to: {
      readonly into: ReadonlyMap<string, string>;
      readonly passive: boolean;
      readonly nodeOfInput: (socket: string) => string;
      readonly nodeOfOutput: (socket: string) => string;
    },
  ): void {
    const kind = kindOf(m);
    const p = completeParams(kind, m.params) as Params;
    const at = (name: string): string => socketAt(m.id, name);
    if (m.kind === 'junction') {
      const out = to.nodeOfOutput(at('out'));
      for (const { name } of kind.inputs(p as never))
        if (to.into.has(at(name))) this.lines.push(`V${m.id}_${name} ${to.nodeOfInput(at(name))} ${out} 0`);
      return;
    }
    if (m.kind === 'attenuator' && to.passive) {
      const [source, out] = [to.nodeOfInput(at('in')), to.nodeOfOutput(at('out'))];
      const [above, below] = [(1 - Number(p.amount)) * Number(p.potOhms), Number(p.amount) * Number(p.potOhms)];
      this.resistor(`${m.id}_above`, source, out, above);
      this.resistor(`${m.id}_below`, p.reversed === true ? source : out, '0', below);
      return;
    }
    if (m.kind === 'mult' && to.passive) return;
    const law = LAWS[m.kind];
    if (!law) throw new Error(`no circuit for ${m.kind}`);
    for (const { name } of kind.inputs(p as never))
      if (to.into.has(at(name)))
        this.resistor(`${m.id}_${name}`, to.nodeOfInput(at(name)), '0', m.inputOhms?.[name] ?? INPUT_OHMS);
    const volts = (name: string): string => (to.into.has(at(name)) ? `V(${to.nodeOfInput(at(name))})` : '0');
    for (const [name, expression] of Object.entries(law(p, volts))) {
      this.lines.push(`B${m.id}_${name} s_${m.id}_${name} 0 V=${expression}`);
      this.resistor(`${m.id}_${name}_own`, `s_${m.id}_${name}`, to.nodeOfOutput(at(name)), m.outputOhms?.[name] ?? 0);
    }
  }
}
