import { socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Target } from '../document/targets';
import type { Edit } from '../edit/edit';
import { BoundsEngine } from '../bounds/bounds';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { knobsOf } from '../kinds/knobs';
import { showNumber, showVolts } from '../units/show';
import { accentHelpers } from './accents';
import type { Helper, HelperOptions } from './types';
import { solve } from './solve';
import { editsOf } from './types';

/** Oscillators within this of each other are of one rate. */
const SAME = 0.05;

/** The settings of a module's own knobs with which a target is met; null where they do not reach it. */
function solvedAt(patch: Patch, m: GraphModule, target: Target): readonly Edit[] | null {
  const free = knobsOf(m.kind, m.params).map((k) => socketAt(m.id, k.name));
  const [best] = solve(patch, { plain: true, free }, [target]).solutions;
  return best ? editsOf(best) : null;
}

/** Of an amplifier whose control moves. */
function amplifierHelpers(patch: Patch, m: GraphModule, { openDb }: HelperOptions): Helper[] {
  const end = m.kind.ends?.[0];
  const used = m.inputs.some((s) => s.driver.type === 'output' && end?.sockets.includes(s.spec.name));
  const full = end?.window(m.params)?.[1];
  if (!m.kind.stage?.amplifier || !end || !used || full === undefined) return [];
  const at = socketAt(m.id, end.socket);
  const ideas: readonly (readonly [Helper['key'], string, string, Target])[] = [
    [
      'rest to full',
      'Closed at minimum, fully open at peak',
      `Sets the CV to run from 0 V to ${showVolts(full, false)}, where the VCA is fully open.`,
      { at, quantity: 'volts', low: 0, high: full },
    ],
    [
      'just opens',
      'Peak at unity gain',
      `The CV peaks at exactly ${showVolts(full, false)}: unity gain.`,
      { at, quantity: 'volts', low: null, high: full },
    ],
    [
      'stays open',
      `Never below ${showNumber(-Math.abs(openDb), 0)} dB`,
      'Sets CV amount and bias so that it stays open at minimum and reaches unity at peak.',
      { at, quantity: 'gain', low: -Math.abs(openDb), high: 0 },
    ],
  ];
  return ideas.flatMap(([key, title, says, target]): Helper[] => {
    const edits = solvedAt(patch, m, target);
    return edits && edits.length > 0 ? [{ key, title, says, edits }] : [];
  });
}

/** Of what adds up beyond its rails: all its levels less by one factor. */
function levelHelpers(graph: Graph, m: GraphModule): Helper[] {
  const names = m.kind.category === 'between' ? (m.kind.panel?.scaledBy?.(m.params) ?? []) : [];
  if (names.length === 0) return [];
  const { railVolts } = graph.patch.settings;
  const ranges = new BoundsEngine().run(graph).get(m.id)?.unclipped ?? [];
  const peak = Math.max(0, ...ranges.map(([lo, hi]) => Math.max(hi, -lo)));
  if (peak <= railVolts || !Number.isFinite(peak)) return [];
  const factor = railVolts / peak;
  const edits = names.flatMap((param): Edit[] => {
    const value = Number((Number(m.params[param]) * factor).toPrecision(6));
    return Number(m.params[param]) === 0 ? [] : [{ do: 'set', module: m.id, param, value }];
  });
  const says = `Could reach ${showVolts(peak, false)}; the rails are at ${showVolts(railVolts, false)}. Scales every level by ${showNumber(factor, 2)}, keeping the balance.`;
  return [{ key: 'nothing clips', title: 'Scale levels to avoid clipping', says, edits }];
}

/** Of an oscillator that runs beside another of its rate: begun by it, at a chosen phase. */
function lockHelpers(graph: Graph, m: GraphModule, { phase }: HelperOptions): Helper[] {
  const begins = m.kind.source?.begins;
  const reset = m.inputs.find((s) => s.spec.name === begins?.input);
  const rate = m.kind.source?.hertz?.(m.params) ?? 0;
  if (!begins || !reset || reset.connected || rate <= 0) return [];
  const alike = graph.modules.filter((x) => {
    const other = x.kind.source?.hertz?.(x.params) ?? 0;
    return x !== m && other > 0 && !x.kind.sound?.audible && Math.abs(other - rate) <= SAME * rate;
  });
  return alike.slice(0, 1).flatMap((other): Helper[] => {
    const from = other.outputs.find((o) => o.name === 'pulse') ?? other.outputs[0];
    if (!from) return [];
    return [
      {
        key: 'locked',
        title: `Locked to ${other.label}, ${showNumber(360 * phase, 0)}° on`,
        says: `${other.label} resets it every cycle at that phase, so they never drift apart.`,
        edits: [
          { do: 'plug', cable: { from: from.socket, to: reset.socket } },
          { do: 'set', module: m.id, param: begins.at, value: phase },
        ],
      },
    ];
  });
}

/** What could be set at a module in one go, of what makes sense there. */
export function helpersAt(patch: Patch, id: string, options: HelperOptions): Helper[] {
  const graph = buildGraph(patch);
  const m = graph.modules.find((x) => x.id === id);
  if (!m) return [];
  return [
    ...amplifierHelpers(patch, m, options),
    ...levelHelpers(graph, m),
    ...lockHelpers(graph, m, options),
    ...accentHelpers(patch, m, options.accents ?? null),
  ];
}
