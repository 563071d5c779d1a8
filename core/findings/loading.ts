import type { Graph, GraphModule } from '../graph/graph';
import { showNumber } from '../units/show';
import { setParam } from './finding';
import type { Cure, Finding, FindingRule } from './finding';
import { pitchPaths } from './pitch-paths';

const SHARE = 0.005;
const CENTS = 3;

/** What loading leaves of an output's voltage: its own node's divider, and for a pot what its load makes of the amount. */
function left(m: GraphModule, factor: number): number {
  const amount = Number(m.params.amount);
  const pot =
    m.kind.name === 'attenuator' && m.params.build === 'passive' && amount > 0 ? m.loading.potGain / amount : 1;
  return factor * pot;
}

/** Passive parts at fault: the pot or mult itself, else the mults that hang on the output. */
function buffered(graph: Graph, m: GraphModule, socket: string): { cure?: Cure } {
  const passive = (x: GraphModule | undefined): x is GraphModule => x?.params.build === 'passive';
  const behind = (from: string): GraphModule[] =>
    graph.patch.cables
      .filter((c) => c.from === from)
      .map((c) => graph.modules.find((x) => c.to.startsWith(`${x.id}.`)))
      .filter(passive);
  const parts = passive(m) ? [m] : behind(socket);
  if (parts.length === 0) return {};
  const edits = parts.map((x) => setParam(x.id, 'build', x.kind.name === 'mult' ? 'buffered' : 'active'));
  return { cure: { label: parts[0]?.kind.name === 'mult' ? 'Buffer the mult' : 'Use an active one', edits } };
}

export const loading: FindingRule = {
  code: 'loading',
  why: 'A passive part and the input behind it divide the voltage between them, so less arrives than the source gives. A buffer, or an active part, keeps the scale.',
  when: 'loading changes a voltage by more than 0.5 %, or a pitch by more than 3 cents',
  cures: 'a buffered mult, an active attenuator',
  find({ graph, bounds }) {
    const pitched = new Set(
      pitchPaths(graph).flatMap((p) => [
        `${p.source.id}.${p.output}`,
        ...p.stages.flatMap((s) => s.m.outputs.map((o) => o.socket)),
      ]),
    );
    return graph.modules.flatMap((m) =>
      m.outputs.flatMap((o, i): Finding[] => {
        const share = left(m, o.factor);
        const [lo, hi] = bounds.get(m.id)?.outputs[i] ?? [0, 0];
        const lost = share > 0 ? (Math.max(hi, -lo) * (1 - share)) / share : 0;
        const cents = 1200 * lost;
        const flat = pitched.has(o.socket) && cents > CENTS;
        if (1 - share <= SHARE && !flat) return [];
        const percent = 100 * (1 - share);
        return [
          {
            code: 'loading',
            severity: flat ? 'warning' : 'note',
            at: o.socket,
            message: `${m.label}, ${o.name} is loaded down by ${showNumber(percent, 1)} %${flat ? `, up to ${showNumber(cents, 0)} cents flat` : ''}: buffer it, or use another pot.`,
            numbers: { percent, ...(flat && { cents }) },
            ...buffered(graph, m, o.socket),
          },
        ];
      }),
    );
  },
};
