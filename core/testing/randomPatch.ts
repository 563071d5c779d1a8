import { socketAt } from '../document/sockets';
import { completeParams } from '../document/params';
import { blank } from '../document/parse';
import { HANDS } from '../document/hands';
import { TRUE_MODULE } from '../document/real';
import type { RealModule } from '../document/real';
import type { Cable, Hand, ModuleDoc, Normal, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { bypassStages } from '../edit/stages';
import { allKinds } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { NumberSpec, ParamSpec, ParamValue, ParamValues } from '../kinds/params';
import { knobsOf } from '../kinds/knobs';
import { stream } from '../kinds/random';
import { scaleNames } from '../units/scales';

export interface RandomPatchOptions {
  readonly modules?: number;
  readonly kinds?: readonly string[];
  readonly duration?: number;
  /** Cables may close loops. */
  readonly loops?: boolean;
  readonly sampleRate?: number;
  /** Hands turn some of its knobs. */
  readonly hands?: boolean;
  /** Normals lead from sockets to some of its unplugged inputs. */
  readonly links?: boolean;
  /** Some of its stages are bypassed. */
  readonly bypass?: boolean;
}

type Random = () => number;

const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(random() * list.length))] as T;

function randomNumber(random: Random, spec: NumberSpec<number | null>, min: number, max: number): number {
  const at = random();
  // The ends and the default are where laws bend.
  if (at < 0.1) return min;
  if (at < 0.2) return max;
  if (at < 0.35 && spec.default !== null && spec.default >= min && spec.default <= max) return spec.default;
  const x = min + (max - min) * random();
  return spec.whole ? Math.round(x) : Number(x.toPrecision(6));
}

function randomParam(random: Random, spec: ParamSpec, soFar: () => ParamValues): ParamValue {
  switch (spec.type) {
    case 'number': {
      if (spec.nullable && random() < 0.5) return null;
      // Times and rates: where something happens within a short window.
      if (spec.unit === 's') return spec.min + Number((random() ** 3 * Math.min(spec.max, 0.3)).toFixed(5));
      const [min, max] = spec.limits?.(soFar()) ?? [spec.min, spec.max];
      return Math.min(max, Math.max(min, randomNumber(random, spec, min, max)));
    }
    case 'choice':
      return pick<string | number>(random, spec.options);
    case 'flag':
      return random() < 0.5;
    case 'text':
      return '';
    case 'points':
      return Array.from({ length: 1 + Math.floor(random() * 4) }, (_, i) => ({
        t: i * 0.02 + random() * 0.01,
        volts: -12 + 24 * random(),
      }));
    case 'steps':
      return Array.from({ length: 1 + Math.floor(random() * 4) }, () => ({
        volts: -12 + 24 * random(),
        gate: random() < 0.7,
        tie: random() < 0.3,
      }));
    case 'scale':
      return random() < 0.5 ? pick(random, scaleNames) : [12 * random(), 12 * random()];
  }
}

/** Values for every parameter that exists, each inside its limits. */
export function randomParams(random: Random, kind: Kind): ParamValues {
  let values: Record<string, ParamValue> = {};
  const names = Object.keys(kind.params);
  // First those that set the others' limits.
  const limited = (name: string): boolean => {
    const spec = kind.params[name] as ParamSpec;
    return spec.type === 'number' && spec.limits !== undefined;
  };
  for (const name of [...names.filter((n) => !limited(n)), ...names.filter(limited)]) {
    values[name] = randomParam(random, kind.params[name] as ParamSpec, () => completeParams(kind, values));
    const pair = kind.panel?.below?.find(
      ([low, high]) => low in values && high in values && (low === name || high === name),
    );
    if (pair && !(Number(values[pair[0]]) < Number(values[pair[1]]))) {
      const least = kind.params[pair[0]];
      values[pair[0]] = Math.max(-5, least?.type === 'number' ? least.min : -5);
      values[pair[1]] = 5;
    }
  }
  if (kind.panel?.check?.(completeParams(kind, values))) values = {};
  const complete = completeParams(kind, values);
  return Object.fromEntries(Object.entries(values).filter(([n]) => kind.params[n]?.exists?.(complete) ?? true));
}

/** A valid patch made from a seed: the same seed, the same patch. */
export function randomPatch(seed: number, options: RandomPatchOptions = {}): Patch {
  const random = stream(seed);
  const kinds = allKinds.filter((k) => options.kinds?.includes(k.name) ?? true);
  const count = options.modules ?? 1 + Math.floor(random() * 30);
  const modules = Array.from({ length: count }, (_, i): ModuleDoc & { params: ParamValues } => {
    const kind = pick(random, kinds);
    return { id: `m${i}`, kind: kind.name, params: random() < 0.15 ? {} : randomParams(random, kind) };
  });
  const parts = modules.map((m) => {
    const kind = kinds.find((k) => k.name === m.kind) as Kind;
    const params = completeParams(kind, m.params);
    return { id: m.id, inputs: kind.inputs(params), outputs: kind.outputs(params) };
  });
  const cables: Cable[] = [];
  const normals: Normal[] = [];
  parts.forEach((part, i) => {
    for (const input of part.inputs) {
      const to = socketAt(part.id, input.name);
      const others = options.loops && random() < 0.2 ? parts : parts.slice(0, i);
      const from = others.filter((p) => p.outputs.length > 0);
      const chance = random();
      if (from.length > 0 && chance < 0.7) {
        const source = pick(random, from);
        cables.push({ from: socketAt(source.id, pick(random, source.outputs)), to });
      } else if (chance < 0.75) normals.push({ to, volts: -12 + 24 * random() });
    }
  });
  if (options.links) normals.push(...randomLinks(stream(seed + 0.25), parts, [...cables, ...normals]));
  const patch: Patch = {
    ...blank,
    name: `Random ${seed}`,
    settings: {
      railVolts: random() < 0.7 ? 12 : 5 + 10 * random(),
      sampleRate: options.sampleRate ?? (random() < 0.5 ? 1000 : 8000),
      duration: options.duration ?? 0.1,
      seed: Math.floor(random() * 1000),
      loading: random() < 0.8 ? 'electrical' : 'ideal',
      bpm: 60 + Math.floor(random() * 900),
    },
    modules: modules.map((m, i) => {
      const outputs = parts[i]?.outputs ?? [];
      return random() < 0.2 && outputs[0] ? { ...m, outputOhms: { [outputs[0]]: Math.floor(10_000 * random()) } } : m;
    }),
    cables,
    normals,
    hands: options.hands ? randomHands(stream(seed + 0.5), modules) : [],
  };
  return options.bypass ? bypassedSome(stream(seed + 0.75), patch) : patch;
}

/** A random patch whose fixes are tried: some with loops, automation, normals between sockets, or bypassed stages. */
export const promisePatch = (seed: number): Patch =>
  randomPatch(seed, {
    loops: seed % 3 === 0,
    hands: seed % 5 === 0,
    links: seed % 4 === 0,
    bypass: seed % 7 === 0,
    duration: 0.05,
  });

/** The same as it would be built: every other module off by what modules are off by, from a seed. */
export function builtPatch(seed: number, patch: Patch): Patch {
  const random = stream(seed ^ 0x2545f491);
  const by = (most: number): number => most * (2 * random() - 1);
  return {
    ...patch,
    modules: patch.modules.map((m) => {
      if (random() < 0.5) return m;
      const real: RealModule = {
        ...TRUE_MODULE,
        gain: 1 + by(0.03),
        offsetVolts: by(0.05),
        timeScale: 1 + by(0.2),
        rateScale: 1 + by(0.2),
        centsPerOctave: by(10),
      };
      return { ...m, real };
    }),
  };
}

interface Sockets {
  readonly id: string;
  readonly inputs: readonly { readonly name: string }[];
  readonly outputs: readonly string[];
}

/** Normals to some inputs that carry nothing yet, each from a socket of a part before it. */
function randomLinks(random: Random, parts: readonly Sockets[], taken: readonly { readonly to: string }[]): Normal[] {
  const carrying = new Set(taken.map((t) => t.to));
  return parts.flatMap((part, i) => {
    const before = parts
      .slice(0, i)
      .flatMap(({ id, inputs, outputs }) => [...inputs.map((s) => s.name), ...outputs].map((n) => socketAt(id, n)));
    const free = part.inputs.map((s) => socketAt(part.id, s.name)).filter((to) => !carrying.has(to));
    return free
      .filter(() => before.length > 0 && random() < 0.5)
      .map((to): Normal => ({
        to,
        from: pick(random, before),
        ...(random() < 0.3 && { brokenBy: 'source' as const }),
      }));
  });
}

/** The patch with some of its stages out of their path. */
function bypassedSome(random: Random, patch: Patch): Patch {
  const ids = patch.modules.filter(() => random() < 0.2).map((m) => m.id);
  return applyEdits(patch, bypassStages(patch, ids));
}

/** Hands on some knobs of any kind, within what each can be set to. */
function randomHands(random: Random, modules: readonly ModuleDoc[]): Hand[] {
  return modules.flatMap((m) => {
    const kind = allKinds.find((k) => k.name === m.kind) as Kind;
    const handed = knobsOf(kind, completeParams(kind, m.params)).filter(() => random() < 0.3);
    return handed.slice(0, HANDS.each).map(({ name, spec, min, max }): Hand => ({
      at: socketAt(m.id, name),
      points: Array.from({ length: 1 + Math.floor(random() * 4) }, (_, i) => ({
        t: i * 0.02 + random() * 0.01,
        value: Math.min(max, Math.max(min, randomNumber(random, spec, min, max))),
      })),
      interpolation: random() < 0.7 ? 'linear' : 'hold',
      loop: random() < 0.3,
    }));
  });
}
