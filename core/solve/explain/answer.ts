import { figureHull, figuresOf } from '../../answers/drive';
import { wantOf } from '../../document/targets';
import type { Target } from '../../document/targets';
import { clockOf, pointerAt } from '../../units/knob';
import { countsOctaves } from '../../units/ratios';
import type { Range } from '../../law/affine';
import type { Setting } from '../problem/setting';
import { flippedAmounts } from '../problem/flips';
import type { Look, Problem } from '../problem/problem';
import { settingAt, valueBeyond } from '../problem/knobs';
import { placeOfTarget, unitOf } from '../../graph/place';
import { toleranceAt } from './spread';
import type { JumperSetting, KnobSetting, Sensitivity, Solution, TargetAnswer } from '../types';

/** Of a knob's travel of 300 degrees. */
const DEGREE = 1 / 300;

export function settingsOf({ trials }: Problem, x: ArrayLike<number>): KnobSetting[] {
  return trials.knobs.flatMap((k, i): KnobSetting[] => {
    const p = x[i] as number;
    if (p === k.from) return [];
    const value = settingAt(k.travel, p);
    const pointer = pointerAt({ ...k.travel, ...(k.panel && { panel: k.panel }) }, p);
    const percent = Number((100 * pointer).toPrecision(12));
    return [{ at: k.name, value, percent, clock: clockOf(pointer), from: settingAt(k.travel, k.from) }];
  });
}

/** What a target's place reads, hands included; volts where it has no unit of its own. */
function figures(target: Target, setting: Setting, [lo, hi]: Range): readonly [number | null, number | null] {
  const place = placeOfTarget(setting.graph, target);
  const m = place && setting.graph.modules[place.module];
  if (!m || place.at.is !== 'end' || ('quantity' in target && target.quantity === 'volts')) return [lo, hi];
  const arriving = 'basis' in target && target.basis === 'arrives' && setting.arriving(place) !== null;
  const passed = arriving ? null : setting.passed(place);
  return passed ? figureHull(place.at.spec, passed) : figuresOf(place.at.spec, m.params, [lo, hi]);
}

export function targetAnswers(problem: Problem, look: Look, setting: Setting): TargetAnswer[] {
  return problem.targets.map((t, i) => {
    const { error, reached } = look.errors[i] as Look['errors'][number];
    const [low, high] = figures(t, setting, reached);
    return {
      at: t.at,
      ...(t.id !== undefined && { id: t.id }),
      want: wantOf(t),
      low,
      high,
      unit: unitOf(setting.graph, t),
      lowVolts: reached[0],
      highVolts: reached[1],
      error: Number.isFinite(error) ? error : 1e9,
      met: look.met[i] ?? false,
    };
  });
}

/** How a difference of two figures is told, and in which unit. */
function difference(
  target: Target,
  unit: string,
): { readonly unit: string; of(a: number | null, b: number | null): number } {
  const quantity = 'quantity' in target ? target.quantity : unit === 'Hz' ? 'frequency' : '';
  if (countsOctaves(quantity))
    return { unit: 'cents/degree', of: (a, b) => (a && b && a > 0 && b > 0 ? 1200 * Math.log2(b / a) : 0) };
  return { unit: `${unit}/degree`, of: (a, b) => (a === null || b === null ? 0 : b - a) };
}

/** What a degree of each knob makes of what is reached, by a small turn inward. */
export function sensitivities(problem: Problem, look: Look): Sensitivity[] {
  if (problem.traced) return [];
  const { trials, targets } = problem;
  const here = trials.at(look.x);
  const before = targets.map((t, i) => figures(t, here, (look.errors[i] as Look['errors'][number]).reached));
  return trials.knobs.flatMap((k, n): Sensitivity[] => {
    const h = (look.x[n] as number) + DEGREE / 10 <= 1 ? DEGREE / 10 : -DEGREE / 10;
    const x = Float64Array.from(look.x);
    x[n] = (x[n] as number) + h;
    const setting = trials.at(x);
    const there = problem.look(x, setting);
    return targets.flatMap((t, i): Sensitivity[] => {
      const { unit, of } = difference(t, unitOf(setting.graph, t));
      const [a, b] = [before[i], figures(t, setting, (there.errors[i] as Look['errors'][number]).reached)];
      const [low, high] = [0, 1].map((e) => (of(a?.[e] ?? null, b[e] ?? null) * DEGREE) / h) as [number, number];
      const still = Math.abs(low) < 1e-6 && Math.abs(high) < 1e-6;
      return still ? [] : [{ knob: k.name, at: t.at, low, high, unit }];
    });
  });
}

/** Less of a movement left than this share is said first. */
const SLIGHT = 0.2;

const nearlyEnded = (problem: Problem, look: Look): string[] =>
  problem.movementLeft(look).flatMap((share, i) => (share < SLIGHT ? [problem.targets[i]?.at ?? ''] : []));

/** An answer in a sentence: what it does to the movement, where that is no longer what it was, then what it turns. */
function whyOf({ settings, jumpers, inverts, nearlyEnds }: Omit<Solution, 'why'>): string {
  const switches =
    jumpers.length > 0 ? `, sets ${jumpers.map((j) => `${j.at} to ${String(j.value)}`).join(' and ')}` : '';
  if (settings.length === 0) return jumpers.length > 0 ? `Sets${switches.slice(6)}` : 'No change needed';
  const most = settings.reduce((a, b) => (Math.abs(b.percent - 50) > Math.abs(a.percent - 50) ? b : a));
  const edge = most.percent < 3 || most.percent > 97 ? `; ${most.at} ends up near its limit` : '';
  const text = [
    ...(inverts.length > 0 ? [`inverts the movement at ${inverts.join(' and ')}`] : []),
    ...(nearlyEnds.length > 0 ? [`nearly ends the movement at ${nearlyEnds.join(' and ')}`] : []),
    `moves ${settings.length} knob${settings.length > 1 ? 's' : ''}${switches}${edge}`,
  ].join('; ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A look as an answer, with its spread and sensitivity unless it is plain. */
export function solutionOf(
  problem: Problem,
  look: Look,
  setting: Setting,
  { jumpers = [], plain = false }: { readonly jumpers?: readonly JumperSetting[]; readonly plain?: boolean } = {},
): Solution {
  const settings = settingsOf(problem, look.x);
  const solution = {
    settings,
    targets: targetAnswers(problem, look, setting),
    sensitivity: plain ? [] : sensitivities(problem, look),
    tolerance: plain ? [] : toleranceAt(setting.graph.patch, problem.targets),
    moved: settings.length,
    jumpers,
    inverts: flippedAmounts(problem, look),
    nearlyEnds: nearlyEnded(problem, look),
  };
  return { ...solution, why: whyOf(solution) };
}

/** The value that a knob would have at a position beyond its travel, and its nearer end. */
export function needOf(
  problem: Problem,
  index: number,
  position: number,
): { readonly needs: number; readonly limit: number } | null {
  const knob = problem.trials.knobs[index];
  if (!knob || (position >= -1e-9 && position <= 1 + 1e-9)) return null;
  const { travel } = knob;
  const needs = Number(valueBeyond(travel, position).toPrecision(9));
  return { needs, limit: position > 1 ? travel.max : travel.min };
}

export const shortOf = (needs: number, limit: number): number => Number(Math.abs(needs - limit).toPrecision(9));

/** The name that a target goes by: its id, else its socket. */
export const nameOfTarget = (t: Target): string => t.id ?? t.at;
