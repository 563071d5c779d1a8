import { freeId } from '../document/edits';
import type { Graph } from '../graph/graph';
import { endsOf, flipsAt, stripTo } from '../strip';
import type { Frame } from '../strip';
import { setParam } from './finding';
import type { Cure, Finding, FindingRule } from './finding';

/** The destination's own amounts, by socket. */
const amounts: Readonly<Record<string, string>> = {
  cv: 'cvAmount',
  cutoff: 'cutoffAmount',
  cutoff2: 'cutoff2Amount',
  fm: 'fmAmount',
  time: 'timeAmount',
};

/** Whether the destination itself turns the voltage of its socket over. */
function flipsAtEnd(frame: Frame): boolean {
  const param = amounts[frame.input?.spec.name ?? ''];
  return param !== undefined && Number(frame.module.params[param] ?? 1) < 0;
}

/** Turns the last flipping stage that can be turned; else puts an inverter before the end. */
function turned(graph: Graph, socket: string, flips: readonly Frame[]): { cure?: Cure } {
  for (const { module: m, output, input } of [...flips].reverse()) {
    const end = output === null ? amounts[input?.spec.name ?? ''] : undefined;
    const amount = end ?? (m.kind.name === 'attenuverter' || m.kind.name === 'offset' ? 'amount' : undefined);
    const turn = m.kind.name === 'mixer' && m.params.inverting === true ? setParam(m.id, 'inverting', false) : null;
    const edit = amount === undefined ? turn : setParam(m.id, amount, -Number(m.params[amount]));
    if (edit) return { cure: { label: `Turn ${m.label} over`, edits: [edit] } };
  }
  const cable = graph.patch.cables.find((c) => c.to === socket);
  if (!cable) return {};
  const id = freeId(graph.patch, 'turn');
  return {
    cure: {
      label: 'Insert an inverter',
      edits: [
        { op: 'add-module', module: { id, kind: 'inverter' }, before: socket.split('.')[0] ?? '' },
        { op: 'plug', cable: { from: cable.from, to: `${id}.in` } },
        { op: 'plug', cable: { from: `${id}.out`, to: socket } },
      ],
    },
  };
}

export const polarity: FindingRule = {
  code: 'polarity',
  why: 'Somewhere on the way the movement is turned over, so up has become down. Two inversions cancel; one more, or one less, sets it right.',
  when: 'the path to a destination is inverted all in all',
  cures: 'turns one stage over, or inserts an inverter',
  find({ graph }) {
    return endsOf(graph).flatMap((socket): Finding[] => {
      const frames = stripTo(graph, socket)?.frames ?? [];
      const flips = frames.filter((f) => (f.output === null ? flipsAtEnd(f) : flipsAt(f)));
      if (flips.length % 2 === 0) return [];
      const end = frames.at(-1)?.module.label ?? socket;
      return [
        {
          code: 'polarity',
          severity: 'note',
          at: socket,
          message: `Net polarity is inverted at ${end}: as ${frames[0]?.module.label ?? 'its source'} rises, it falls. Fine if meant; else flip one stage.`,
          numbers: {},
          ...turned(graph, socket, flips),
        },
      ];
    });
  },
};
