import { BoundsEngine } from '../bounds/bounds';
import { readingsOf } from '../answers/readings';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { endsOf, stripTo } from '../graph/strip';
import type { Frame } from '../graph/strip';
import type { Range } from '../law/affine';
import { simulateGraph } from '../simulate/simulate';
import type { Simulation, SimulateOptions } from '../simulate/types';
import { showNumber, showRange } from '../units/show';

const FRAME = { width: 150, height: 110, gap: 34, head: 34 } as const;
const MARGIN = 28;
const ROW = FRAME.head + FRAME.height + 44;
const COLUMNS = 120;

const INK = '#1C2B33';
const COLOURS = { line: '#D8D2C4', bound: '#D3DEDA', seen: '#8FB3AB', trace: '#123F4A' } as const;

const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const at = (x: number): string => x.toFixed(1);

interface Scene {
  readonly graph: Graph;
  readonly bounds: ReturnType<BoundsEngine['run']>;
  readonly simulation: Simulation;
}

/** What a frame shows: what leaves it, or what arrives where it ends. */
function boundOf({ bounds }: Scene, { module: m, input, output }: Frame): Range {
  const found = bounds.get(m.id);
  const out = m.outputs.findIndex((o) => o.socket === output);
  if (out >= 0) return found?.outputs[out] ?? [0, 0];
  const end = m.kind.ends?.findIndex((e) => e.sockets.includes(input?.spec.name ?? '')) ?? -1;
  if (end >= 0) return found?.ends[end]?.drive ?? [0, 0];
  return found?.inputs[m.inputs.findIndex((s) => s === input)] ?? [0, 0];
}

const socketOf = ({ output, input }: Frame): string => output ?? input?.socket ?? '';

/** One path: its frames on one volts ruler, joined band to band, with what arrives at its end. */
function row(scene: Scene, end: string, top: number): { readonly svg: string; readonly width: number } {
  const frames = stripTo(scene.graph, end)?.frames ?? [];
  const ranges = frames.map((f) => boundOf(scene, f));
  const reach = Math.max(1, ...ranges.flatMap(([lo, hi]) => [Math.abs(lo), Math.abs(hi)])) * 1.28;
  const y = (volts: number): number => top + FRAME.head + (FRAME.height / 2) * (1 - volts / reach);
  const x = (i: number): number => MARGIN + i * (FRAME.width + FRAME.gap);
  const bands = frames.slice(1).map((_, i) => {
    const [[lo, hi], [lo2, hi2]] = [ranges[i] ?? [0, 0], ranges[i + 1] ?? [0, 0]];
    const [from, to] = [x(i) + FRAME.width, x(i + 1)];
    return `<path d="M${at(from)} ${at(y(hi))}L${at(to)} ${at(y(hi2))}L${at(to)} ${at(y(lo2))}L${at(from)} ${at(y(lo))}Z" fill="${COLOURS.bound}" opacity="0.6"/>`;
  });
  const drawn = frames.map((f, i) => frame(scene, f, ranges[i] ?? [0, 0], x(i), top, y));
  const reading = readingsOf(scene.graph, scene.bounds, scene.simulation).find((r) => r.at === end);
  const says = reading ? showRange(reading.arrivesLow, reading.arrivesHigh, reading.unit) : '';
  const last = `<text x="${at(x(frames.length - 1))}" y="${at(top + FRAME.head + FRAME.height + 30)}" font-weight="bold">${escaped(says)}</text>`;
  return { svg: [...bands, ...drawn, last].join(''), width: x(frames.length) };
}

function frame(scene: Scene, f: Frame, [lo, hi]: Range, x: number, top: number, y: (volts: number) => number): string {
  const { width, height, head } = FRAME;
  const picture = scene.simulation.pictures.get(socketOf(f));
  const rect = (low: number, high: number, fill: string): string =>
    `<rect x="${at(x)}" y="${at(y(high))}" width="${width}" height="${at(Math.max(0.5, y(low) - y(high)))}" fill="${fill}"/>`;
  const seen = picture ? rect(picture.reach[0], picture.reach[1], COLOURS.seen) : '';
  const points = [...(picture?.max ?? [])].map(
    (v, i, all) => `${at(x + (width * i) / Math.max(1, all.length - 1))} ${at(y((v + (picture?.min[i] ?? v)) / 2))}`,
  );
  const trace = points.length > 1 ? `<path d="M${points.join('L')}" fill="none" stroke="${COLOURS.trace}"/>` : '';
  const params = f.module.kind.brief(f.module.params);
  return [
    `<text x="${at(x)}" y="${at(top + 12)}" font-weight="bold">${escaped(f.module.label)}</text>`,
    `<text x="${at(x)}" y="${at(top + 26)}" font-size="10">${escaped(params.length > 28 ? `${params.slice(0, 27)}…` : params)}</text>`,
    `<rect x="${at(x)}" y="${top + head}" width="${width}" height="${height}" fill="none" stroke="${COLOURS.line}"/>`,
    rect(lo, hi, COLOURS.bound),
    seen,
    `<path d="M${at(x)} ${at(y(0))}h${width}" stroke="${COLOURS.line}"/>`,
    trace,
    `<text x="${at(x + 3)}" y="${at(y(hi) - 3)}" font-size="9">${showNumber(hi, 2, true)}</text>`,
    `<text x="${at(x + 3)}" y="${at(y(lo) + 9)}" font-size="9">${showNumber(lo, 2, true)}</text>`,
  ].join('');
}

/** A patch as one picture: the path to each of its ends, frame by frame, as an SVG that needs nothing else. */
export function patchPicture(patch: Patch, asset?: SimulateOptions['asset']): string {
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  const simulation = simulateGraph(graph, { columns: COLUMNS, bounds, ...(asset && { asset }) });
  const scene = { graph, bounds, simulation };
  const rows = endsOf(graph).map((end, i) => row(scene, end, MARGIN + 26 + i * ROW));
  const width = Math.max(320, ...rows.map((r) => r.width)) + MARGIN;
  const height = MARGIN + 26 + Math.max(1, rows.length) * ROW;
  const name = `<text x="${MARGIN}" y="26" font-size="18" font-weight="bold">${escaped(patch.name)}</text>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${at(width)}" height="${at(height)}" viewBox="0 0 ${at(width)} ${at(height)}" font-family="sans-serif" font-size="12" fill="${INK}"><rect width="100%" height="100%" fill="#FFFFFF"/>${name}${rows.map((r) => r.svg).join('')}</svg>\n`;
}
