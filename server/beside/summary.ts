import { buildGraph, endsOf, standingsOf, openingEnd, placeName, predict, stripTo } from '../../core';
import type { AssetLookup, Patch } from '../../core';
import type { Summary } from '../../wire/patches';

/** The longest window that is simulated for a picture, seconds. */
const LONGEST = 8;

/** What the patches list shows of a patch. */
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
    notes: patch.notes,
    figures: 'arrives',
    findings: { error: count('error'), warning: count('warning'), note: count('note') },
    ends: ends.flatMap((at) => {
      const r = readings.find((x) => x.at === at);
      return r
        ? [{ at, label: placeName(graph.modules, at), low: r.arrivesLow, high: r.arrivesHigh, unit: r.unit }]
        : [];
    }),
    uses: patch.modules.flatMap((m) => m.rack ?? []),
    wanted: { count: short.targets.length, met: standingsOf(short, { asset }).filter((m) => m.met).length },
    shown,
    strip: (strip?.frames ?? []).flatMap((f) => {
      const end = f.output === null ? readings.find((r) => r.at === shown) : undefined;
      if (end?.seenDriveVolts) return [{ label: f.module.label, bound: end.driveVolts, seen: end.seenDriveVolts }];
      const p = outputs[f.output ?? ''] ?? inputs[f.input?.socket ?? ''];
      return p?.seen ? [{ label: f.module.label, bound: p.bound, seen: p.seen }] : [];
    }),
  };
}
