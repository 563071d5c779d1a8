import { idOf, socketAt } from '../document/sockets';
import { freeId } from '../edit/editSequence';
import type { Graph } from '../graph/graph';
import { endsOf, flipsAt, framesTo } from '../graph/strip';
import type { Frame } from '../graph/strip';
import { setCure, setParam } from './finding';
import { FIX_IDS } from './insert';
import { carriesAudio } from './paths';
import type { Cure, FindingRule, Found } from './finding';
import { asksForOpposite } from './wanted';

/** Whether the destination itself inverts the voltage of its socket. */
function flipsAtEnd({ input, module }: Frame): boolean {
  const param = input?.spec.amount;
  return param !== undefined && Number(module.params[param] ?? 1) < 0;
}

/** Un-inverts the last inverting stage that allows it; else inserts an inverter before the end. */
function flipFixes(graph: Graph, socket: string, flips: readonly Frame[]): readonly Cure[] {
  for (const { module: m, output, input } of [...flips].reverse()) {
    const amount = input?.spec.amount;
    const negative = amount !== undefined && Number(m.params[amount]) < 0;
    const turn = m.params.inverting === true && output !== null ? setParam(m.id, 'inverting', false) : null;
    const edit = negative ? setParam(m.id, amount, -Number(m.params[amount])) : turn;
    if (edit) return [setCure(`Invert ${m.label}`, edit)];
  }
  const cable = graph.wiring.cableInto(socket);
  if (!cable) return [];
  const id = freeId(graph.patch, FIX_IDS.inverter);
  return [
    setCure(
      'Insert an inverter',
      { do: 'add', module: { id, kind: 'inverter' }, before: idOf(socket) },
      { do: 'plug', cable: { from: cable.from, to: socketAt(id, 'in') } },
      { do: 'plug', cable: { from: socketAt(id, 'out'), to: socket } },
    ),
  ];
}

/** Of sound nobody hears the polarity. */
function isSound(graph: Graph, socket: string): boolean {
  const input = graph.modules.flatMap((m) => m.inputs).find((s) => s.socket === socket);
  return input !== undefined && carriesAudio(graph, input);
}

export const polarity: FindingRule = {
  code: 'polarity',
  title: 'Path inverted',
  why: 'Somewhere on the path the signal is inverted, so up has become down. Two inversions cancel out; add or remove one.',
  when: 'a mixer that always inverts leaves the path to a destination inverted, and no target wants it so; not an inverter, a negative amount or an inverted output, which are chosen, and not on sound',
  cures: 'inverts one stage, or inserts an inverter',
  find({ graph }) {
    return endsOf(graph).flatMap((socket): Found[] => {
      const frames = framesTo(graph, socket);
      const flips = frames.filter((f) => (f.output === null ? flipsAtEnd(f) : flipsAt(f)));
      const forced = flips.some((f) => f.module.params.inverting === true);
      if (flips.length % 2 === 0 || !forced || asksForOpposite(graph, socket) || isSound(graph, socket)) return [];
      const end = frames.at(-1)?.module.label ?? socket;
      return [
        {
          code: 'polarity',
          severity: 'note',
          at: socket,
          message: `The path to ${end} is inverted: as ${frames[0]?.module.label ?? 'its source'} rises, ${end} falls. If that is not intended, invert one stage.`,
          numbers: {},
          cures: flipFixes(graph, socket, flips),
        },
      ];
    });
  },
};
