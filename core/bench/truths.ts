import { TRUE_MODULE } from '../document/real';
import type { PointerError, RealModule } from '../document/real';
import { completeParams } from '../document/params';
import type { ModuleDoc, Patch } from '../document/types';
import { kindNamed } from '../kinds';
import { normal, seedOf, stream } from '../kinds/random';
import type { ChannelLimits } from '../rack/limits';
import { POINTER, pointerKnobs } from '../rack/pointers';
import type { Travel } from '../units/knob';

/** One thing in which a real module differs from its kind’s law. */
export interface Trait {
  /** `gain`, `offsetVolts`, `pointer.amount`, `fullVolts`, `timeScale`, `rateScale`, `centsPerOctave` */
  readonly parameter: string;
  readonly ideal: number;
  /** What such modules are off by, one sigma. */
  readonly sigma: number;
  /** Of a pointer. */
  readonly travel?: Travel;
}

/** One sigma of what modules are off by: gain, volts, percent of travel, a share of full, of times and rates, cents. */
const PRIORS = { gain: 0.005, offsetVolts: 0.005, pointer: 1, full: 0.01, scale: 0.02, cents: 2 } as const;

export const pointerTrait = (knob: string): string => `${POINTER}${knob}`;

/** What can be off about a module, on the channel that it sits on. */
export function traitsOf(m: ModuleDoc, bpm: number, channels: ChannelLimits | null): Trait[] {
  const kind = kindNamed(m.kind);
  if (!kind) return [];
  const params = completeParams(kind, m.params, bpm);
  const { times, rates, full, octaves } = kind.scale ?? {};
  const planned = Number(params[full ?? '']);
  const outputs: Trait[] = [
    { parameter: 'gain', ideal: 1, sigma: PRIORS.gain },
    { parameter: 'offsetVolts', ideal: 0, sigma: PRIORS.offsetVolts },
  ];
  return [
    ...(kind.outputs(params).length > 0 ? outputs : []),
    ...pointerKnobs(m, bpm, channels).map(({ name, travel }) => ({
      parameter: pointerTrait(name),
      ideal: 0,
      sigma: PRIORS.pointer,
      travel,
    })),
    ...(full === undefined ? [] : [{ parameter: 'fullVolts', ideal: planned, sigma: PRIORS.full * planned }]),
    ...(times ? [{ parameter: 'timeScale', ideal: 1, sigma: PRIORS.scale }] : []),
    ...(rates ? [{ parameter: 'rateScale', ideal: 1, sigma: PRIORS.scale }] : []),
    ...(octaves ? [{ parameter: 'centsPerOctave', ideal: 0, sigma: PRIORS.cents }] : []),
  ];
}

/** A module whose traits stand at values; those that are not there are ideal. */
export function realModule(traits: readonly Trait[], values: ReadonlyMap<string, number>): RealModule {
  const at = (parameter: string, ideal: number): number => values.get(parameter) ?? ideal;
  const pointers = traits.flatMap(({ parameter, travel }): [string, PointerError][] => {
    const percent = values.get(parameter);
    if (!travel || percent === undefined) return [];
    return [[parameter.slice(POINTER.length), { travel, by: percent / 100 }]];
  });
  return {
    gain: at('gain', TRUE_MODULE.gain),
    offsetVolts: at('offsetVolts', TRUE_MODULE.offsetVolts),
    pointers: Object.fromEntries(pointers),
    fullVolts: values.get('fullVolts') ?? null,
    timeScale: at('timeScale', TRUE_MODULE.timeScale),
    rateScale: at('rateScale', TRUE_MODULE.rateScale),
    centsPerOctave: at('centsPerOctave', TRUE_MODULE.centsPerOctave),
  };
}

/** The true values of a module of a simulated rack: the same for a seed, a channel and a trait, whatever is patched. */
export function drawnTraits(m: ModuleDoc, traits: readonly Trait[], seed: number): Map<string, number> {
  const name = m.rack ?? m.id;
  return new Map(
    traits.map(({ parameter, ideal, sigma }) => [
      parameter,
      ideal + sigma * normal(stream(seedOf(seed, `${name} ${parameter}`))),
    ]),
  );
}

/** A patch on a simulated rack: every module off as its channel there is. @param own the modules that are of the rack. */
export function onSimulatedRack(
  patch: Patch,
  seed: number,
  channels: ChannelLimits | null,
  own: ReadonlySet<string>,
): Patch {
  const { bpm } = patch.settings;
  return {
    ...patch,
    modules: patch.modules.map((m) => {
      if (!own.has(m.id)) return m;
      const traits = traitsOf(m, bpm, channels);
      return { ...m, real: realModule(traits, drawnTraits(m, traits, seed)) };
    }),
  };
}
