import { inSentence, socketAt, socketLabel, socketPlace } from '@/core';
import { countsOctaves, driveFor, flipsAt, positionOf } from '@/core';
import type { EndSpec, Frame, Joining, ModuleBounds, ParamValues, Reading, Strip, Target } from '@/core';
import type { PictureData } from '@/wire/core';
import type { Pictures, Predicted } from '@/ui/session/usePrediction';
import { outside } from './geometry';
import type { Volts } from './geometry';

/** All that one frame shows, in volts. */
export interface FrameView {
  readonly key: string;
  readonly id: string;
  readonly title: string;
  readonly brief: string;
  readonly bound: Volts;
  /** What its numbers tell: the range that arrives. */
  readonly arrives: Volts;
  readonly seen: Volts | null;
  readonly picture: PictureData | null;
  /** What is lost: clipped, or outside the destination’s range. */
  readonly lost: readonly { readonly range: Volts; readonly why: string }[];
  /** Where else the stage's output goes. */
  readonly forks: readonly string[];
  /** Whether the stage inverts the signal on its way to this frame. */
  readonly flips: boolean;
  /** What it comes to is asked for: none of it is shown. */
  readonly covered?: true;
}

/** A view that tells nothing of what its stage comes to. */
export const coveredView = (view: FrameView): FrameView => ({
  ...view,
  bound: [0, 0],
  arrives: [0, 0],
  seen: null,
  picture: null,
  lost: [],
  flips: false,
  covered: true,
});

const sameLost = (a: FrameView['lost'], b: FrameView['lost']): boolean =>
  a.length === b.length &&
  a.every((l, i) => l.why === b[i]?.why && l.range[0] === b[i].range[0] && l.range[1] === b[i].range[1]);

/** Whether two frames would look the same. */
export const sameView = (a: FrameView, b: FrameView): boolean =>
  a === b ||
  (a.key === b.key &&
    a.title === b.title &&
    a.brief === b.brief &&
    a.picture === b.picture &&
    a.flips === b.flips &&
    a.covered === b.covered &&
    a.bound[0] === b.bound[0] &&
    a.bound[1] === b.bound[1] &&
    a.arrives[0] === b.arrives[0] &&
    a.arrives[1] === b.arrives[1] &&
    a.forks.join() === b.forks.join() &&
    sameLost(a.lost, b.lost));

/** Keeps the views of a moment ago that look the same, so that what draws them knows at a glance. */
export class Steady {
  private last = new Map<string, FrameView>();

  keep(views: readonly FrameView[]): FrameView[] {
    const kept = views.map((view) => {
      const before = this.last.get(view.key);
      return before && sameView(before, view) ? before : view;
    });
    this.last = new Map(kept.map((view) => [view.key, view]));
    return kept;
  }
}

export interface EndView {
  readonly spec: EndSpec<ParamValues> | null;
  readonly params: ParamValues;
  readonly window: Volts | null;
  readonly reading: Reading | null;
  /** What is wanted there and can stand as a bracket. */
  readonly target: Bracket | null;
  /** What is wanted, as drive volts; null: that end is free. */
  readonly wanted: Wanted | null;
}

export type Wanted = readonly [low: number | null, high: number | null];
export type Bracket = Extract<Target, { readonly quantity: string }>;

/** Whether a target has two ends that can be shown on a ruler. */
export const isBracket = (t: Target): t is Bracket => 'low' in t || (t.want === 'span' && t.centre !== null);

/** Whether a target is about a destination's own reading, which its ruler shows. */
export const isOwn = (t: Bracket, spec: EndSpec<ParamValues> | null, params: ParamValues): boolean =>
  t.quantity === 'volts' || !spec || t.quantity === spec.quantity || t.quantity === spec.unit(params);

/** The drives of a bracket's ends. */
export function wantedDrives(t: Bracket, spec: EndSpec<ParamValues> | null, params: ParamValues): Wanted {
  const drive = (figure: number): number => (t.quantity === 'volts' || !spec ? figure : driveFor(spec, params, figure));
  if ('low' in t)
    return [
      typeof t.low === 'number' ? drive(t.low) : t.low === 'silent' ? 0 : null,
      t.high === null ? null : drive(t.high),
    ];
  if (t.want !== 'span' || t.centre === null) return [null, null];
  const octaves = countsOctaves(t.quantity);
  const shifted = (by: number): number => (octaves ? (t.centre ?? 1) * 2 ** by : (t.centre ?? 0) + by);
  return [drive(shifted(-t.span / 2)), drive(shifted(t.span / 2))];
}

/** The destination's law at the socket that a strip ends at. */
export function endSpecOf(frame: Frame | undefined): EndSpec<ParamValues> | null {
  const name = frame?.input?.spec.name;
  return frame?.module.kind.ends?.find((e) => name !== undefined && e.sockets.includes(name)) ?? null;
}

function forksOf(frame: Frame, next: Frame | undefined, predicted: Predicted): string[] {
  const { modules } = predicted.graph;
  const from = modules.indexOf(frame.module);
  return modules.flatMap((m) =>
    m.inputs.flatMap((s) =>
      s.driver.type === 'output' && s.driver.module === from && s.socket !== next?.input?.socket
        ? [`${socketPlace(m, s.spec.name)}${s.driver.delayed ? ' ↺' : ''}`]
        : [],
    ),
  );
}

function endDrive(frame: Frame, bounds: ModuleBounds | undefined, spec: EndSpec<ParamValues> | null): Volts {
  const index = frame.module.kind.ends?.findIndex((e) => e === spec) ?? -1;
  const input = frame.module.inputs.findIndex((s) => s === frame.input);
  return bounds?.ends.find((e) => e.end === index)?.drive ?? bounds?.inputs[input] ?? [0, 0];
}

export function frameViews(strip: Strip, predicted: Predicted, pictures: Pictures = none): FrameView[] {
  return strip.frames.map((frame, i) => frameView(frame, strip.frames[i + 1], predicted, pictures));
}

export const joiningViews = (joining: Joining, predicted: Predicted, pictures: Pictures = none): FrameView[] =>
  joining.frames.map((frame, i) => frameView(frame, joining.frames[i + 1], predicted, pictures));

const none: Pictures = new Map();

function frameView(frame: Frame, next: Frame | undefined, predicted: Predicted, pictures: Pictures): FrameView {
  const { module, input, output } = frame;
  const found = predicted.bounds.get(module.id);
  const { outputs, inputs, readings } = predicted.prediction;
  const at = output ?? input?.socket ?? '';
  const picture = pictures.get(at) ?? null;
  const base = {
    key: `${module.id} ${at}`,
    id: module.id,
    title: module.label,
    brief:
      output === null
        ? `${input ? inSentence(socketLabel(module.kind, input.spec.name)) : ''} · ${module.kind.brief(module.params)}`
        : module.kind.brief(module.params),
    picture,
    seen: picture && picture.reach[0] <= picture.reach[1] ? picture.reach : null,
    flips: flipsAt(frame),
  };
  if (output === null) {
    const spec = endSpecOf(frame);
    const bound = endDrive(frame, found, spec);
    const window = spec?.window(module.params);
    const lost = window
      ? outside(bound, window).map((range) => ({ range, why: 'outside the destination’s range' }))
      : [];
    const reading = spec && readings.find((r) => r.at === socketAt(module.id, spec.socket));
    return { ...base, bound, arrives: reading?.arrivesVolts ?? inputs[at]?.arrives ?? bound, lost, forks: [] };
  }
  const index = module.outputs.findIndex((o) => o.socket === output);
  const bound = found?.outputs[index] ?? [0, 0];
  const rail = predicted.graph.patch.settings.railVolts;
  const lost = outside(found?.unclipped[index] ?? bound, [-rail, rail])
    .filter(([lo, hi]) => Number.isFinite(lo) && Number.isFinite(hi))
    .map((range) => ({ range, why: 'clipped at the supply rail' }));
  return { ...base, bound, arrives: outputs[output]?.arrives ?? bound, lost, forks: forksOf(frame, next, predicted) };
}

export function endView(strip: Strip, predicted: Predicted): EndView {
  const frame = strip.frames.at(-1);
  const spec = endSpecOf(frame);
  const params = frame?.module.params ?? {};
  const sockets = new Set([frame?.input?.socket, frame && spec && socketAt(frame.module.id, spec.socket)]);
  const target =
    predicted.graph.patch.targets.filter(isBracket).find((t) => sockets.has(t.at) && isOwn(t, spec, params)) ?? null;
  return {
    spec,
    params,
    window: spec?.window(params) ?? null,
    reading: predicted.prediction.readings.find((r) => sockets.has(r.at)) ?? null,
    target,
    wanted: target && wantedDrives(target, spec, params),
  };
}

/** Share 0..1 of a reading's unit span, for the range bars; frequencies on an octave scale. */
export function shareOf(spec: EndSpec<ParamValues> | null, params: ParamValues, drive: number): number {
  const [min, max] = spec?.window(params) ?? [-12, 12];
  return Math.min(1, Math.max(0, positionOf({ min, max, taper: 'linear' }, drive)));
}
