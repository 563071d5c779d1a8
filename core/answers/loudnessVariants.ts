import { socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { GraphModule } from '../graph/graph';
import type { AssetLookup } from '../kinds/kind';
import { simulateGraph } from '../simulate/simulate';

/** One way to shape loudness: how the contour bends, and how the amplifier answers. */
export interface LoudnessVariant {
  readonly contour: 'straight' | 'curved';
  readonly amplifier: 'linear' | 'exponential';
  readonly name: string;
  /** The patch as it would be in this variant. */
  readonly patch: Patch;
}

/** Loudness over time in one variant, dB; silence is null. */
export interface LoudnessOver {
  readonly name: string;
  readonly patch: Patch;
  readonly points: readonly { readonly t: number; readonly db: number | null }[];
}

const PLACES = 240;
/** How far a curved stage bends: a resistor and a capacitor. */
const CURVED = 0.6;
/** What is quieter counts as silence, dB. */
const SILENT = -80;

/** The contours that lead to an amplifier's control, however far away. */
function contoursBefore(modules: readonly GraphModule[], amp: GraphModule): GraphModule[] {
  const seen = new Set<number>();
  const visit = (m: GraphModule, controls: boolean): GraphModule[] => {
    if (seen.has(m.index)) return [];
    seen.add(m.index);
    const fed = m.inputs.flatMap(({ driver, spec }) => {
      if (driver.type !== 'output' || (controls && spec.role !== 'control')) return [];
      const from = modules[driver.module];
      return from ? visit(from, false) : [];
    });
    return [...(m.kind.timing?.contour ? [m] : []), ...fed];
  };
  return visit(amp, true);
}

const bent = ({ id, kind }: GraphModule, curve: number): Edit[] =>
  (kind.timing?.contour?.bends ?? []).map((param) => ({ do: 'set', module: id, param, value: curve }));

/** A patch in the four loudnessVariants of its amplifier; none where the module is no amplifier with a response. */
export function loudnessVariantsOf(patch: Patch, id: string): LoudnessVariant[] {
  const { modules } = buildGraph(patch);
  const amp = modules.find((m) => m.id === id);
  const response = amp?.kind.stage?.amplifier?.response;
  if (!amp || response === undefined) return [];
  const contours = contoursBefore(modules, amp);
  return (['linear', 'exponential'] as const).flatMap((amplifier) =>
    (contours.length > 0 ? (['straight', 'curved'] as const) : (['straight'] as const)).map((contour) => ({
      contour,
      amplifier,
      name: contours.length > 0 ? `${contour} contour, ${amplifier} amplifier` : `${amplifier} amplifier`,
      patch: applyEdits(patch, [
        { do: 'set', module: id, param: response, value: amplifier === 'linear' ? 0 : 1 },
        ...contours.flatMap((m) => bent(m, contour === 'straight' ? 0 : CURVED)),
      ]),
    })),
  );
}

/** How loud a signal passes an amplifier over the window, in each of its loudnessVariants. */
export function loudnessOver(patch: Patch, id: string, asset?: AssetLookup): LoudnessOver[] {
  return loudnessVariantsOf(patch, id).map(({ name, patch: variant }) => {
    const graph = buildGraph(variant);
    const amp = graph.modules.find((m) => m.id === id) as GraphModule;
    const end = amp.kind.ends?.[0];
    if (!end) return { name, patch: variant, points: [] };
    const socket = socketAt(id, end.socket);
    const run = simulateGraph(graph, { drives: [socket], only: [socket], ...(asset && { asset }) });
    const drive = run.drives.get(socket) ?? new Float64Array(0);
    const points = Array.from({ length: PLACES }, (_, i) => {
      const k = Math.min(drive.length - 1, Math.round((i * (drive.length - 1)) / (PLACES - 1)));
      const db = end.value(amp.params, drive[k] ?? 0);
      return { t: k / run.sampleRate, db: db === null || db < SILENT ? null : db };
    });
    return { name, patch: variant, points };
  });
}
