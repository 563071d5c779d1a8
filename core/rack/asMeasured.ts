import { TRUE_MODULE } from '../document/real';
import type { KnownErrors, PointerError, RealModule } from '../document/real';
import { placesOf } from '../document/rackTypes';
import type { Channel, Rack } from '../document/rackTypes';
import type { ModuleDoc, Patch } from '../document/types';
import { channelLimits } from './limits';
import type { ChannelLimits } from './limits';
import { pointerKnobs } from './pointers';
import { POINTER } from './pointers';

type Measured = NonNullable<Channel['measured']>;

/** Which channel plays a module. */
export interface Seat {
  readonly module: string;
  readonly rack: string;
}

/** A patch on the channels of some seats; where none are given it stays on those that its modules name. */
function seatedOn(patch: Patch, seats: readonly Seat[] | undefined): Patch {
  if (!seats) return patch;
  const by = new Map(seats.map((s) => [s.module, s.rack]));
  return {
    ...patch,
    modules: patch.modules.map(({ rack: _rack, ...m }) => {
      const rack = by.get(m.id);
      return rack === undefined ? m : { ...m, rack };
    }),
  };
}

/** What a channel is still off by once it is measured. */
function errorsOf({ errors = {} }: Measured): KnownErrors {
  const knobs = Object.entries(errors).flatMap(([name, sigma]): [string, number][] =>
    name.startsWith(POINTER) ? [[name.slice(POINTER.length), sigma / 100]] : [],
  );
  return {
    ...(errors.gain !== undefined && { gain: errors.gain }),
    ...(errors.offsetVolts !== undefined && { offset: errors.offsetVolts }),
    knobs: Object.fromEntries(knobs),
  };
}

function realOf(m: ModuleDoc, bpm: number, channels: ChannelLimits, found: Measured): RealModule {
  const pointers = pointerKnobs(m, bpm, channels).flatMap(({ name, travel }): [string, PointerError][] => {
    const percent = found.pointers?.[name];
    return percent === undefined ? [] : [[name, { travel, by: percent / 100 }]];
  });
  return {
    gain: found.gain ?? TRUE_MODULE.gain,
    offsetVolts: found.offsetVolts ?? TRUE_MODULE.offsetVolts,
    pointers: Object.fromEntries(pointers),
    fullVolts: found.fullVolts ?? null,
    timeScale: found.timeScale ?? TRUE_MODULE.timeScale,
    rateScale: found.rateScale ?? TRUE_MODULE.rateScale,
    centsPerOctave: found.centsPerOctave ?? TRUE_MODULE.centsPerOctave,
    errors: errorsOf(found),
  };
}

/** What was measured of the channels of a rack, by their names. */
const measuredOf = (rack: Rack): ReadonlyMap<string, Measured> =>
  new Map(placesOf(rack).flatMap(({ name, channel: { measured } }) => (measured ? [[name, measured] as const] : [])));

/**
 * A patch as it will really behave on a rack: gains, offsets, pointers, times, rates and tunings as they were measured.
 * Its settings stay what the pointers say.
 *
 * @param seats which channel plays which module; left out: the channels that the modules name.
 */
export function asMeasured(patch: Patch, rack: Rack, seats?: readonly Seat[]): Patch {
  const seated = seatedOn(patch, seats);
  const channels = channelLimits(seated, rack);
  const measured = measuredOf(rack);
  return {
    ...patch,
    modules: patch.modules.map((m, i) => {
      const found = measured.get(seated.modules[i]?.rack ?? '');
      return found ? { ...m, real: realOf(m, patch.settings.bpm, channels, found) } : m;
    }),
  };
}
