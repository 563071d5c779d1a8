import { idOf } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import { modulesUpTo } from '../graph/upstream';
import { kindTitle } from '../kinds';
import { showNumber, showVoltRange, showVolts } from '../units/show';
import type { Seen } from './seen';

/** What happens at one stage on the way, and what it comes to there, volts. */
export interface StageStep {
  readonly at: string;
  readonly text: string;
  readonly low: number;
  readonly high: number;
}

const times = (gain: number): string => `× ${showNumber(gain, 2)}`;

function mixerText({ params, inputs }: GraphModule): string {
  const used = inputs.filter((s) => s.connected || s.driver.type === 'volts');
  const parts = used.flatMap(({ spec, driver }) => {
    const n = /^in(\d)$/.exec(spec.name)?.[1];
    const silent = driver.type === 'volts' && driver.volts === 0;
    return n === undefined || silent ? [] : [`${spec.name.replace('in', 'in ')} ${times(Number(params[`gain${n}`]))}`];
  });
  const bias = Number(params.biasVolts);
  const list = [...parts, ...(bias === 0 ? [] : [showVolts(bias)])].join(', ');
  const sum = params.law === 'average' ? `averages ${list}` : `adds ${list}`;
  return params.inverting === true ? `${sum}, and inverts` : sum;
}

/** What a stage does, without its name: `× 0.40, then +2.00 V`. */
function does(m: GraphModule): string {
  const { params: p } = m;
  switch (m.kind.name) {
    case 'lfo':
      return `goes from ${showVoltRange(Number(p.lowVolts), Number(p.highVolts))}`;
    case 'constant':
      return `holds ${showVolts(Number(p.volts))}`;
    case 'attenuator':
    case 'attenuverter':
      return times(Number(p.amount));
    case 'offset': {
      const [gain, lift] = [times(Number(p.amount)), showVolts(Number(p.volts))];
      return p.order === 'shiftThenScale' ? `${lift}, then ${gain}` : `${gain}, then ${lift}`;
    }
    case 'inverter':
      return 'turns it over';
    case 'mixer':
      return mixerText(m);
    case 'rectifier':
      return {
        full: 'folds up what is below 0 V',
        positive: 'keeps what is above 0 V',
        negative: 'keeps what is below 0 V',
      }[p.mode as 'full' | 'positive' | 'negative'];
    case 'vca':
      return `multiplies by its control over ${showVolts(Number(p.unityVolts), false)}`;
    case 'slew':
      return p.law === 'rc' ? 'slows down towards where it goes' : 'goes at one speed at most';
    case 'comparator':
      return `is high from ${showVolts(Number(p.thresholdVolts))} on`;
    default:
      return kindTitle(m.kind.name).toLowerCase();
  }
}

/** What every stage does, without what it comes to: what a learner may read. */
export const givenAt = ({ modules }: Graph): { readonly module: string; readonly text: string }[] =>
  modules.filter((m) => m.kind.category !== 'end').map((m) => ({ module: m.id, text: `${m.label} ${does(m)}` }));

/** How the voltage at a socket comes about, stage by stage, in the order in which it passes them. */
export function stepsTo(seen: Seen, at: string): StageStep[] {
  const { graph } = seen;
  const range = (socket: string) => seen.range(socket);
  const ids = modulesUpTo(graph, at);
  const order = graph.groups.flatMap((g) => g.modules.map((i) => graph.modules[i] as GraphModule));
  const used = new Set([...graph.wiring.wires.map((w) => w.from), at]);
  const steps = order
    .filter((m) => ids.has(m.id))
    .flatMap((m): StageStep[] => {
      const out = m.outputs.find((o) => used.has(o.socket));
      if (!out) return [];
      const [low, high] = range(out.socket);
      return [{ at: out.socket, text: `${m.label} ${does(m)}`, low, high }];
    });
  if (steps.some((s) => s.at === at)) return steps;
  const [low, high] = range(at);
  const end = graph.modules.find((m) => m.id === idOf(at));
  return [...steps, { at, text: `${end?.label ?? ''} gets all of it together`, low, high }];
}
