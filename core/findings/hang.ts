import { freeId } from '../document/edits';
import type { Edit } from '../document/edits';
import type { Graph, GraphInput } from '../graph/graph';
import { showSeconds } from '../units/show';
import type { Finding, FindingRule } from './finding';
import { inputNamed, sourceOf, upstreamModules } from './paths';

/** A gate that is up for this many steps hangs. */
const STEPS = 2;

/** The length of a step of the stepped voltage that an input gets, seconds; null if it gets none. */
function stepSeconds(graph: Graph, input: GraphInput): number | null {
  for (const m of upstreamModules(graph, [input])) {
    if (m.kind.name === 'lfo' && m.params.shape === 'stepped') return 1 / Number(m.params.rateHz);
    const clock = m.kind.name === 'sequencer' ? inputNamed(m, 'clock') : undefined;
    const from = clock && sourceOf(graph, clock);
    if (from?.m.kind.name === 'clock') return (60 / Number(from.m.params.bpm)) * Number(from.m.params.beats);
  }
  return null;
}

/** The gate of the sequencer upstream, to multiply by. */
const gateOf = (graph: Graph, input: GraphInput): string | undefined =>
  [...upstreamModules(graph, [input])].find((m) => m.kind.name === 'sequencer')?.id;

export const hang: FindingRule = {
  code: 'hang',
  why: 'A stepped voltage goes straight from value to value and never returns to zero between notes, so the envelope stays open and notes hang. Multiply it by the gate, and every note has its end.',
  when: 'an envelope’s gate, made from a stepped voltage, stays up for two step lengths or more',
  cures: 'multiplies it by the sequencer’s gate',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.name === 'envelope')
      .flatMap((m): Finding[] => {
        const input = inputNamed(m, 'gate');
        const seen = input && simulation.gates.get(input.socket);
        const step = input ? stepSeconds(graph, input) : null;
        const direct = input && sourceOf(graph, input);
        // A tie in the sequencer's own gate holds on purpose.
        if (!input || !seen || step === null || (direct?.m.kind.name === 'sequencer' && direct.output === 'gate'))
          return [];
        if (seen.longestHighSeconds < STEPS * step) return [];
        const sequencer = gateOf(graph, input);
        const cable = graph.patch.cables.find((c) => c.to === input.socket);
        const id = freeId(graph.patch, 'return');
        const edits: Edit[] =
          sequencer && cable
            ? [
                { op: 'add-module', module: { id, kind: 'vca', label: 'Return to zero' }, before: m.id },
                { op: 'plug', cable: { from: cable.from, to: `${id}.in` } },
                { op: 'plug', cable: { from: `${sequencer}.gate`, to: `${id}.cv` } },
                { op: 'plug', cable: { from: `${id}.out`, to: input.socket } },
              ]
            : [];
        return [
          {
            code: 'hang',
            severity: 'warning',
            at: input.socket,
            message: `${m.label} hangs: its gate stays up for ${showSeconds(seen.longestHighSeconds)}, over ${STEPS} steps and more, for a stepped voltage has no return to zero.`,
            numbers: { hangSeconds: seen.longestHighSeconds },
            ...(edits.length > 0 && { cure: { label: 'Multiply by the gate', edits } }),
          },
        ];
      });
  },
};
