import { socketPlace } from '../document/names';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { showVolts } from '../units/show';
import { setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { feedingEnds, gainThrough } from './paths';

const voltsOf = ({ driver }: GraphInput): number => (driver.type === 'volts' ? driver.volts : 0);

const isActive = (s: GraphInput): boolean => !s.plugged && voltsOf(s) !== 0;

/** Whether a module is patched as a source of its normal: that is its one signal, and an output is in use. */
function isSource(graph: Graph, m: GraphModule, input: GraphInput): boolean {
  const signals = m.inputs.filter((s) => s.spec.role === 'signal');
  const alone = signals.every((s) => s === input || (s.driver.type === 'volts' && !isActive(s)));
  return signals.includes(input) && alone && m.outputs.some((o) => graph.wiring.cablesFrom(o.socket).length > 0);
}

export const normalActive: FindingRule = {
  code: 'normal-active',
  title: 'Normal still active',
  why: 'An unpatched socket is not always silent: its normal keeps adding voltage. Turn its level to zero, or patch something in at 0 V.',
  when: 'an unpatched input’s normal, other than 0 V, adds voltage at a destination; not the one normal of a module that is patched as a source, with no signal plugged in',
  cures: 'sets the normal to 0 V',
  find({ graph }) {
    const feeding = feedingEnds(graph);
    const ends = new Set(graph.modules.filter((m) => m.kind.ends?.length));
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap((s): Found[] => {
        if (!isActive(s) || isSource(graph, m, s)) return [];
        const read = ends.has(m) && m.kind.ends?.some((e) => e.sockets.includes(s.spec.name));
        const passes = m.outputs.some(
          (o) => Math.abs(gainThrough(m, s, o.name, (x) => (x.driver.type === 'volts' ? x.driver.volts : 1))) > 1e-9,
        );
        if (!read && !(feeding.has(m) && passes)) return [];
        const volts = voltsOf(s);
        return [
          {
            code: 'normal-active',
            severity: 'note',
            at: s.socket,
            message: `${socketPlace(m, s.spec.name)} is unpatched, but its normal still adds ${showVolts(volts)}.`,
            numbers: { volts },
            cures: [
              setCure('Set the normal to 0 V', { do: 'normal', to: s.socket, normal: { to: s.socket, volts: 0 } }),
            ],
          },
        ];
      }),
    );
  },
};
