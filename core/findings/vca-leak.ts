import type { Graph } from '../graph/graph';
import { BoundsEngine } from '../bounds/bounds';
import { withFadersMoved } from '../bounds/faders';
import { showDb, showVolts } from '../units/show';
import { amplifiersOf } from './amplifiers';
import type { Amplifier } from './amplifiers';
import { heldAt } from './causes';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';
import { gainAt } from './gain';
import { inputNamed, upstreamModules } from './paths';
import { restVolts } from './rest';

/** Quieter than this at rest is closed, dB. */
const CLOSED_DB = -60;
/** A control that moves by less than this does not move, volts. */
const MOVES_VOLTS = 0.001;

/** The lowest control that faders leave an amplifier at while every envelope rests, volts. */
function lowestAtRest(graph: Graph, { m }: Amplifier): number | null {
  const moved = withFadersMoved(graph);
  if (moved === graph) return null;
  const held = graph.modules.flatMap((x) => {
    const { contour } = x.kind.timing ?? {};
    return contour ? x.outputs.map((o) => [o.socket, contour.rests(x.params, o.name)] as const) : [];
  });
  return new BoundsEngine().run(heldAt(moved, new Map(held))).get(m.id)?.ends[0]?.drive[0] ?? null;
}

export const vcaLeak: FindingRule = {
  code: 'vca-leak',
  title: 'VCA never fully closes',
  why: 'While its envelope rests the VCA is slightly open, so a sound that should have ended carries on. Set the last VCA’s bias to zero.',
  when: 'a two-quadrant VCA with a signal at its input that feeds a line output, or is last in the patch, stays louder than −60 dB while the envelope that opens it rests, wherever its faders stand; not where that envelope loops',
  cures: 'sets the bias at which it is closed at rest',
  find(evidence) {
    const { graph } = evidence;
    const heard = upstreamModules(
      graph,
      graph.modules.filter((m) => m.kind.sound?.outlet).flatMap((m) => m.inputs),
    );
    return amplifiersOf(evidence).flatMap((amp): Found[] => {
      const { m, spec, at, low, high, amount, bias, biasRange, deadVolts } = amp;
      if (amp.bothSigns) return [];
      const [cv, cv2] = [inputNamed(m, spec.control), inputNamed(m, spec.beside)];
      if (!cv || !cv2) return [];
      const last = !m.outputs.some((o) => graph.wiring.cablesFrom(o.socket).length > 0);
      const opened = [...upstreamModules(graph, [cv, cv2])].some((x) => x.kind.timing?.contour !== undefined);
      if (!opened || (!heard.has(m) && !last)) return [];
      const [a, b] = [restVolts(graph, cv), restVolts(graph, cv2)];
      if (a === null || b === null) return [];
      const rest = amount * a + b + bias;
      // A level that nothing moves is meant to be open.
      if (high - low < MOVES_VOLTS) return [];
      const restDb = gainAt(m, rest);
      // Where the envelope closes it, as in ducking, being open at rest is the point.
      if (restDb === null || restDb <= CLOSED_DB || rest > low + 1e-6) return [];
      const lowest = lowestAtRest(graph, amp);
      if (lowest !== null && (gainAt(m, lowest) ?? -Infinity) <= CLOSED_DB) return [];
      const zero = bias - rest + deadVolts;
      const fits = zero >= biasRange[0] && zero <= biasRange[1];
      return [
        {
          code: 'vca-leak',
          severity: 'warning',
          at,
          message: `${m.label} never fully closes: with its envelope at rest it still passes sound at ${showDb(restDb)}.`,
          numbers: { restDb },
          cures: cures(fits ? setCure(`Set bias to ${showVolts(zero)}`, setParam(m.id, spec.bias, zero)) : null),
        },
      ];
    });
  },
};
