import { completeParams } from '../document/params';
import { knobsIn } from '../document/knobs';
import { outputsOf, realHands, realParams } from '../document/real';
import { idOf, nameOf } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import { pointerReader, saidEdits } from '../edit/said';
import { kindNamed } from '../kinds';
import type { ChannelLimits } from '../rack/limits';
import { clockOf, positionOf, valueAt } from '../units/knob';
import type { KnobSetting, Limit, Solution, SolveAnswer } from './types';

/** A patch as its rack really is, with what its knobs really give in place of what they say. */
export function withTrueSettings(patch: Patch): Patch {
  const { bpm } = patch.settings;
  const byId = new Map(patch.modules.map((m) => [m.id, m]));
  return {
    ...patch,
    modules: patch.modules.map((m): ModuleDoc => {
      const kind = kindNamed(m.kind);
      if (!m.real || !kind) return m;
      const complete = realParams(kind, completeParams(kind, m.params, bpm), m.real);
      const params = Object.fromEntries(Object.entries(complete).filter(([name]) => name in kind.params));
      return { ...m, params, real: outputsOf(m.real) };
    }),
    hands: patch.hands.flatMap((h) => {
      const m = byId.get(idOf(h.at));
      const kind = m && kindNamed(m.kind);
      return kind ? realHands(kind, [h], m.real) : [h];
    }),
  };
}

/** How far knobs really turn where their pointers go from end to end. */
export function trueLimits(patch: Patch, channels: ChannelLimits | undefined): ChannelLimits {
  const limits = new Map(channels?.limits);
  for (const m of patch.modules)
    for (const knob of m.real ? knobsIn(m, patch.settings.bpm) : []) {
      const pointer = m.real?.pointers[knob.name];
      if (!pointer) continue;
      const { travel, by } = pointer;
      limits.set(knob.at, [valueAt(travel, by), valueAt(travel, 1 + by)]);
    }
  const { choices, panels, spreads } = channels ?? { choices: new Map(), panels: new Map(), spreads: new Map() };
  return { limits, choices, panels, spreads };
}

/** An answer in what pointers say. @param patch as it was asked, with its pointers. */
export function saidByPointers(answer: SolveAnswer, patch: Patch): SolveAnswer {
  const said = pointerReader(patch);
  const byId = new Map(patch.modules.map((m) => [m.id, m]));
  const setting = (s: KnobSetting): KnobSetting => {
    const travel = byId.get(idOf(s.at))?.real?.pointers[nameOf(s.at)]?.travel;
    const value = said(s.at, s.value);
    const position = travel && positionOf(travel, value);
    return {
      ...s,
      value,
      from: said(s.at, s.from),
      ...(position !== undefined && { percent: Number((100 * position).toPrecision(12)), clock: clockOf(position) }),
    };
  };
  const solution = (s: Solution): Solution => ({ ...s, settings: s.settings.map(setting) });
  const limit = (l: Limit): Limit => {
    const [needs, at] = [said(l.at, l.needs), said(l.at, l.limit)];
    return { ...l, needs, limit: at, short: Math.abs(needs - at) };
  };
  return {
    ...answer,
    solutions: answer.solutions.map(solution),
    nearest: answer.nearest && solution(answer.nearest),
    limits: answer.limits.map(limit),
    suggestion: answer.suggestion && { ...answer.suggestion, edits: saidEdits(patch, answer.suggestion.edits) },
  };
}
