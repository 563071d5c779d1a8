import { endsOf, openingEnd, placeName, predict, stripTo } from '../core';
import { buildGraph } from '../core';
import type { AssetLookup, Patch } from '../core';

/** What the shelf shows of a patch. */
export interface Summary {
  readonly modules: number;
  readonly findings: { readonly error: number; readonly warning: number; readonly note: number };
  readonly ends: readonly {
    readonly label: string;
    readonly low: number | null;
    readonly high: number | null;
    readonly unit: string;
  }[];
  /** Of the first end's strip: bound and seen of each frame, volts. */
  readonly strip: readonly { readonly bound: readonly [number, number]; readonly seen: readonly [number, number] }[];
}

/** The longest window that is simulated for a picture, seconds. */
const LONGEST = 8;

export function summarise(patch: Patch, asset: AssetLookup = () => null): Summary {
  const short = { ...patch, settings: { ...patch.settings, duration: Math.min(LONGEST, patch.settings.duration) } };
  const graph = buildGraph(short);
  const { outputs, inputs, readings, findings } = predict(short, { asset, cures: false });
  const count = (severity: string): number => findings.filter((f) => f.severity === severity).length;
  const ends = endsOf(graph);
  const shown = openingEnd(graph);
  const strip = shown === null ? null : stripTo(graph, shown);
  return {
    modules: patch.modules.length,
    findings: { error: count('error'), warning: count('warning'), note: count('note') },
    ends: ends.flatMap((at) => {
      const r = readings.find((x) => x.at === at);
      return r ? [{ label: placeName(graph.modules, at), low: r.low, high: r.high, unit: r.unit }] : [];
    }),
    strip: (strip?.frames ?? []).flatMap((f) => {
      const end = f.output === null ? readings.find((r) => r.at === shown) : undefined;
      if (end?.seenDriveVolts) return [{ bound: end.driveVolts, seen: end.seenDriveVolts }];
      const p = outputs[f.output ?? ''] ?? inputs[f.input?.socket ?? ''];
      return p?.seen ? [{ bound: p.bound, seen: p.seen }] : [];
    }),
  };
}
