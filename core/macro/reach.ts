import { socketPlace } from '../document/names';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { constant } from '../law/affine';
import { AtomStore } from '../law/builder';
import { lawsOf } from '../simulate/laws';
import { canRead, driveFor } from '../answers/drive';

/** An end as a macro sees it: which voltage at its socket gives which figure. */
export interface Reached {
  readonly label: string;
  readonly quantity: string;
  readonly unit: string;
  /** Null where no voltage gives it. */
  voltsFor(figure: number): number | null;
  figureAt(volts: number): number | null;
}

/** What a destination's drive comes to with a voltage at one of its sockets, everything else as it rests. */
function driveAt(m: GraphModule, end: EndSpec<ParamValues>, name: string, volts: number): number {
  const { io } = lawsOf(m);
  const store = new AtomStore();
  const others = (socket: string): ReturnType<typeof io.in> => {
    const driver = m.inputs.find((s) => s.spec.name === socket)?.driver;
    return constant(driver?.type === 'volts' ? driver.volts : 0);
  };
  return end.drive(store, m.params, { ...io, in: (socket) => (socket === name ? constant(volts) : others(socket)) }).lo;
}

/** An input that reads in a unit of its own; else why it is none. */
export function endAt(graph: Graph, socket: string): Reached | string {
  const m = graph.modules.find((x) => x.id === idOf(socket));
  const name = nameOf(socket);
  const end =
    m?.kind.ends?.find((e) => socketAt(m.id, e.socket) === socket) ??
    m?.kind.ends?.find((e) => e.sockets.includes(name));
  if (!m || !end || !m.inputs.some((s) => s.socket === socket)) return 'This input has no unit to set values in.';
  const rest = driveAt(m, end, name, 0);
  const slope = driveAt(m, end, name, 1) - rest;
  if (slope === 0) return `${m.label} ignores that input: its CV amount is 0.`;
  return {
    label: socketPlace(m, name),
    quantity: end.quantity,
    unit: end.unit(m.params),
    voltsFor(figure) {
      return canRead(end, m.params, figure) ? (driveFor(end, m.params, figure) - rest) / slope : null;
    },
    figureAt: (volts) => end.value(m.params, rest + slope * volts),
  };
}
