import { glance } from '../answers/glance';
import type { Glance } from '../answers/glance';
import type { Reading } from '../answers/readings';
import type { Prediction } from '../answers/predict';
import { BoundsEngine } from '../bounds/bounds';
import { applyEdits } from '../edit/edit';
import { LEAST_LEFT, movementAt, reachedFrom, STILL } from '../findings/kept';
import { idOf } from '../document/sockets';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { predict } from '../solve/cured';

/** Seen may leave the bound by no more than rounding, volts. */
const SLACK = 1e-9;

/** All that is told of a patch, or that without its findings, which take longest. */
function answersOf(patch: Patch, findings: boolean): Glance {
  if (findings) return predict(patch, { engine: new BoundsEngine(), cures: false });
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  return glance(graph, bounds, simulateGraph(graph, { bounds }));
}

interface Asked {
  readonly findings?: boolean;
  /** What the modules of the patch really do, which no document holds; left out: what their kinds say. */
  readonly asBuilt?: (patch: Patch) => Patch;
}

/** What is wrong with a reading, or null: what arrives lies within its bound, by either of which a target is judged. */
function readingFault({ at, low, high, arrivesLow, arrivesHigh }: Reading): string | null {
  const within = (end: number | null, from: number | null, to: number | null): boolean => {
    // No figure stands for silence, which lies below all.
    const [x, a, b] = [end ?? -Infinity, from ?? -Infinity, to ?? -Infinity];
    const slack = Number.isFinite(x) ? SLACK * Math.max(1, Math.abs(x)) : 0;
    return x >= a - slack && x <= b + slack;
  };
  return within(arrivesLow, low, high) && within(arrivesHigh, low, high)
    ? null
    : `the reading of ${at}: ${arrivesLow} … ${arrivesHigh} arrives outside ${low} … ${high}`;
}

/** What is wrong with the answers to a patch, or null: seen within bound, all finite, the document as it was. */
export function faultOf(patch: Patch, { findings = true, asBuilt = (p) => p }: Asked = {}): string | null {
  const printed = JSON.stringify(printPatch(patch));
  const parsed = parsePatch(JSON.parse(printed));
  if (!parsed.ok) return `refused: ${parsed.errors.map((e) => `${e.path}: ${e.message}`).join('; ')}`;
  const again = JSON.stringify(printPatch(parsed.value));
  if (again !== printed) return `printed otherwise: ${again}`;
  const { outputs, inputs, readings } = answersOf(asBuilt(parsed.value), findings);
  for (const [socket, p] of [...Object.entries(outputs), ...Object.entries(inputs)]) {
    const [lo, hi] = p.bound;
    const [least, most] = p.seen ?? [NaN, NaN];
    if (![lo, hi, least, most, p.mean, p.rms].every(Number.isFinite))
      return `${socket}: not finite: ${JSON.stringify(p)}`;
    if (least < lo - SLACK || most > hi + SLACK) return `${socket}: seen ${least} … ${most} outside ${lo} … ${hi}`;
    const [from, to] = p.arrives;
    if (!(from >= lo - SLACK && to <= hi + SLACK && from <= to))
      return `${socket}: ${from} … ${to} arrives outside ${lo} … ${hi}`;
  }
  return readings.map(readingFault).find((fault) => fault !== null) ?? null;
}

/**
 * What cure of a patch breaks its promise, or null. Applied, the document is still one, the finding is gone, at its
 * module and behind it stands no new error, warning or clipping, a tenth of the movement there is left, and no loop is
 * closed.
 *
 * @param prediction of the patch, where it is known already.
 */
export function brokenPromiseOf(
  patch: Patch,
  { findings }: Pick<Prediction, 'findings'> = predict(patch),
): string | null {
  const before = new Set(findings.map((f) => `${f.code} ${f.at}`));
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  for (const { code, at, severity, cure } of findings) {
    if (!cure) continue;
    const mended = parsePatch(JSON.parse(JSON.stringify(printPatch(applyEdits(patch, cure.edits)))));
    const what = `${code} at ${at}, “${cure.label}”`;
    if (!mended.ok) return `${what}: ${mended.errors.map((e) => `${e.path}: ${e.message}`).join('; ')}`;
    const graphAfter = buildGraph(mended.value);
    const behind = reachedFrom(graphAfter, idOf(at));
    const after = predict(mended.value, { cures: false }).findings.filter((f) => behind.has(idOf(f.at)));
    if (after.some((f) => f.code === code && f.at === at && f.severity === severity))
      return `${what}: it is still there`;
    const news = after.find((f) => (f.severity !== 'note' || f.code === 'clip') && !before.has(`${f.code} ${f.at}`));
    if (news) return `${what}: brings ${news.code} at ${news.at}`;
    const moved = movementAt(graph, bounds, at);
    const left = movementAt(graphAfter, new BoundsEngine().run(graphAfter), at);
    if (code !== 'runaway' && moved > STILL && left < LEAST_LEFT * moved)
      return `${what}: leaves ${left} V of ${moved} V`;
    const loops = (g: typeof graph): number => g.groups.filter((x) => x.loop).flatMap((x) => x.modules).length;
    if (loops(graphAfter) > loops(graph)) return `${what}: closes a loop`;
  }
  return null;
}
