import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import type { GraphModule } from '../graph/graph';
import { modulesUpTo } from '../graph/upstream';
import { kindNamed, kindTitle } from '../kinds';
import { inSentence, paramLabel } from '../kinds/knobs';
import type { ParamSpec, ParamValue } from '../kinds/params';
import { settingText } from '../sheet/settings';
import { showNumber, showQuantity, showRange, showVoltRange, showVolts } from '../units/show';
import type { Seen } from './seen';

/** What is put at an output that leads nowhere: a buffer, which any voltage can go into. */
export const METER = 'meter';

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
    case 'clock':
      return `pulses between ${showVolts(Number(p.lowVolts), false)} and ${showVolts(Number(p.highVolts), false)}`;
    case 'sequencer':
      return `steps through ${given(p.steps as ParamValue, undefined)}`;
    case 'envelope':
      return `rises to ${showVolts(Number(p.peakVolts), false)} and falls back`;
    case 'oscillator':
      return `sounds at ${showQuantity(Number(p.baseHz), 'Hz')} with 0 V at its pitch`;
    case 'ringMod':
      return `multiplies both, over ${showVolts(Number(p.scaleVolts), false)}`;
    case 'mult':
      return p.build === 'passive' ? 'is bare wire: every input loads the source' : 'copies it';
    case 'junction':
      return 'joins them: they meet in between';
    case 'attenuator':
      return p.build === 'passive'
        ? `${times(Number(p.amount))}, a bare pot that its load pulls down`
        : times(Number(p.amount));
    case 'attenuverter':
      return times(Number(p.amount));
    case 'offset': {
      const [amount, volts] = [Number(p.amount), Number(p.volts)];
      const [gain, lift] = [times(amount), `adds ${showVolts(volts)}`];
      if (volts === 0) return gain;
      if (amount === 1) return lift;
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
      return inSentence(kindTitle(m.kind.name));
  }
}

/** A figure without a unit, with no zeros that say nothing. */
const showPlain = (x: number): string => String(Number(x.toPrecision(4))).replace('-', '\u2212');

/** Voltages of a list of steps; other settings as sentences say them. */
function given(value: ParamValue, spec: ParamSpec | undefined): string {
  const steps = Array.isArray(value) ? value.flatMap((x) => ('volts' in x ? [showNumber(x.volts, 2)] : [])) : [];
  if (steps.length > 0) return `${steps.join(', ')} V`;
  const plain = typeof value === 'number' && spec?.type === 'number' && spec.unit === '';
  return plain ? showPlain(value) : settingText(value, spec);
}

/**
 * What is set of every stage, without what it comes to: what a learner may read.
 *
 * @param asked knobs that are to be set.
 */
export const givenAt = (patch: Patch, asked: readonly string[]): { readonly module: string; readonly text: string }[] =>
  patch.modules
    .filter((m) => m.id !== METER)
    .map((m) => {
      const kind = kindNamed(m.kind);
      const settings = Object.entries(m.params ?? {})
        .filter(([name]) => !asked.includes(socketAt(m.id, name)))
        .map(
          ([name, value]) => `${inSentence(paramLabel(name, kind?.params[name]))} ${given(value, kind?.params[name])}`,
        );
      return { module: m.id, text: [`${m.label ?? m.id}: ${inSentence(kindTitle(m.kind))}`, ...settings].join(', ') };
    });

/** What a destination makes of what arrives, with what it then reads. */
function arrivalText({ prediction }: Seen, end: GraphModule | undefined, at: string): string {
  const label = end?.label ?? idOf(at);
  const reading = prediction.readings.find((r) => r.at === at && !r.further);
  const spec = end?.kind.ends?.find((e) => e.socket === nameOf(at));
  if (!reading || !spec) return `${label} gets it`;
  return `${label}: ${spec.says}; ${showRange(reading.arrivesLow, reading.arrivesHigh, reading.unit)}`;
}

/** The choices of an order, from the first to the last, with what each reads. */
export function stepsOf(
  seen: Seen,
  choices: readonly { readonly text: string }[],
  order: readonly number[],
): StageStep[] {
  const ends = seen.prediction.readings.filter((r) => !r.further);
  return order.flatMap((i): StageStep[] => {
    const end = ends[i];
    if (!end) return [];
    const [low, high] = seen.range(end.at);
    return [{ at: end.at, text: `${choices[i]?.text ?? ''}: ${showQuantity(end.arrivesHigh, end.unit)}`, low, high }];
  });
}

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
  return [...steps, { at, text: arrivalText(seen, end, at), low, high }];
}
