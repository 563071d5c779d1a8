import { placeName } from '../document/names';
import { socketAt } from '../document/sockets';
import { knobsIn } from '../document/knobs';
import { completeParams, existing } from '../document/params';
import { placeNamed, placesOf } from '../document/rackTypes';
import type { ChannelMode, RackPlace, Rack } from '../document/rackTypes';
import type { ModuleDoc, Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { kindNamed, kindTitle } from '../kinds';
import type { ParamValue } from '../kinds/params';
import type { Panel } from '../units/knob';
import { channelSettings, limitsThere, modeOf } from './holds';

/** What the channels that a patch sits on allow, by `module.param`. */
export interface ChannelLimits {
  /** How far a knob turns there; a fixed one not at all. */
  readonly limits: ReadonlyMap<string, readonly [number, number]>;
  /** What jumpers and switches allow there; one thing where it is fixed. */
  readonly choices: ReadonlyMap<string, readonly ParamValue[]>;
  /** What is printed around a knob there. */
  readonly panels: ReadonlyMap<string, Panel>;
  /** By module, one sigma of its knobs as measured there, as a share of their travel. */
  readonly spreads: ReadonlyMap<string, number>;
}

/** A setting that cannot be made on the channel that its module sits on. */
export interface ChannelFault {
  readonly module: string;
  readonly rack: string;
  readonly message: string;
}

interface Sitting {
  readonly m: ModuleDoc;
  readonly place: RackPlace | undefined;
}

/** The modules that sit on a channel of this rack. */
function sittings(patch: Patch, rack: Rack): Sitting[] {
  const places = new Map(placesOf(rack).map((p) => [p.name, p]));
  return patch.modules.flatMap((m) => (m.rack === undefined ? [] : [{ m, place: places.get(m.rack) }]));
}

export function channelLimits(patch: Patch, rack: Rack): ChannelLimits {
  const limits = new Map<string, readonly [number, number]>();
  const choices = new Map<string, readonly ParamValue[]>();
  const panels = new Map<string, Panel>();
  const spreads = new Map<string, number>();
  for (const { m, place } of sittings(patch, rack)) {
    const mode = place && modeOf(place.channel, m.kind);
    if (!mode) continue;
    const spread = place.channel.measured?.spread;
    if (spread !== undefined) spreads.set(m.id, spread);
    for (const knob of knobsIn(m, patch.settings.bpm)) {
      // A knob that most modules lack is there only where the channel says how far it turns.
      if (knob.spec.rare && !Object.hasOwn(mode.ranges, knob.name) && !Object.hasOwn(mode.fixed, knob.name)) continue;
      limits.set(knob.at, limitsThere(mode, knob.name, [knob.min, knob.max]));
    }
    for (const [name, value] of Object.entries(mode.fixed)) choices.set(socketAt(m.id, name), [value]);
    for (const [name, values] of Object.entries(mode.choices)) choices.set(socketAt(m.id, name), values);
    for (const [name, panel] of Object.entries(place.channel.knobs)) panels.set(socketAt(m.id, name), panel);
  }
  return { limits, choices, panels, spreads };
}

/** What cannot be set where a patch sits, and channels that two modules sit on or that are not there. */
export function channelFaults(patch: Patch, rack: Rack): ChannelFault[] {
  const taken = new Map<string, string>();
  return sittings(patch, rack).flatMap(({ m, place }): ChannelFault[] => {
    const name = m.rack ?? '';
    const fault = (message: string): ChannelFault[] => [{ module: m.id, rack: name, message }];
    const other = taken.get(name);
    taken.set(name, other ?? m.id);
    if (!place) return fault(`this rack has no channel ${name}`);
    if (other !== undefined) return fault(`already used by ${placeName(patch.modules, other)}`);
    const kind = kindNamed(m.kind);
    const mode = modeOf(place.channel, m.kind);
    if (!kind || !mode)
      return fault(`that channel is a ${place.channel.modes.map((x) => kindTitle(x.kind)).join(' or ')}`);
    const all = completeParams(kind, m.params, patch.settings.bpm);
    const held = channelSettings(mode, existing(kind, all));
    return held.ok ? [] : fault(held.why);
  });
}

/** The settings nearest to a module's own that its channel allows, as edits; none where it is another kind there. */
export function settledEdits(patch: Patch, rack: Rack, id: string): Edit[] {
  const m = patch.modules.find((x) => x.id === id);
  const place = m?.rack === undefined ? undefined : placeNamed(rack, m.rack);
  const kind = m && kindNamed(m.kind);
  const mode = m && place && modeOf(place.channel, m.kind);
  if (!kind || !mode) return [];
  const params = completeParams(kind, m.params, patch.settings.bpm);
  return Object.keys(kind.params).flatMap((param): Edit[] => {
    const now = params[param] as ParamValue;
    const value = nearestThere(mode, param, now);
    return value === now ? [] : [{ do: 'set', module: id, param, value }];
  });
}

function nearestThere(mode: ChannelMode, name: string, now: ParamValue): ParamValue {
  if (Object.hasOwn(mode.fixed, name)) return mode.fixed[name] as ParamValue;
  const range = mode.ranges[name];
  if (range && typeof now === 'number') return Math.min(range[1], Math.max(range[0], now));
  const choices = mode.choices[name];
  if (!choices || choices.includes(now)) return now;
  const off = (v: ParamValue): number => (typeof v === 'number' && typeof now === 'number' ? Math.abs(v - now) : 0);
  return choices.toSorted((a, b) => off(a) - off(b))[0] ?? now;
}
