import { allKinds } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamSpec } from '../kinds/params';
import { QUANTITIES } from '../kinds/traits';
import { scaleNames } from '../units/scales';
import { HANDS } from './hands';
import { MACROS } from './macros';
import { CURVES, ID_PATTERN, LIMITS, OHMS, SETTINGS } from './types';
import type { Json } from './types';
import { TARGET_LIMITS, TARGET_SHAPES, WANTS } from './wants';
import type { TargetField } from './wants';

export type Schema = { readonly [key: string]: Json };

export const object = (properties: Schema, required: readonly string[] = [], extra: Schema = {}): Schema => ({
  type: 'object',
  additionalProperties: false,
  properties,
  ...(required.length > 0 && { required }),
  ...extra,
});
export const list = (items: Schema, maxItems: number): Schema => ({ type: 'array', items, maxItems });
export const text = (maxLength: number): Schema => ({ type: 'string', maxLength });
export const within = (minimum: number, maximum: number): Schema => ({ type: 'number', minimum, maximum });

const socket: Schema = { type: 'string', pattern: `${ID_PATTERN.slice(0, -1)}\\.[A-Za-z0-9]+$` };
const volts = within(-12, 12);
const same: Schema = { $ref: '#/$defs/same' };

export function paramSchema(spec: ParamSpec): Schema {
  switch (spec.type) {
    case 'number': {
      const type = spec.whole ? 'integer' : 'number';
      return {
        type: spec.nullable ? [type, 'null'] : type,
        minimum: spec.min,
        maximum: spec.max,
        default: spec.default,
      };
    }
    case 'choice':
      return { enum: spec.options, default: spec.default };
    case 'flag':
      return { type: 'boolean', default: spec.default };
    case 'text':
      return { ...text(spec.longest), default: spec.default };
    case 'points':
      return {
        anyOf: [{ ...list(object({ t: within(0, 1e6), volts }, ['t', 'volts']), spec.most), minItems: 1 }, same],
      };
    case 'steps':
      return {
        anyOf: [
          { ...list(object({ volts, gate: { type: 'boolean' }, tie: { type: 'boolean' } }), spec.most), minItems: 1 },
          same,
        ],
      };
    case 'scale':
      return { anyOf: [{ enum: scaleNames }, { ...list(within(0, 12), 128), minItems: 1 }], default: 'chromatic' };
  }
}

function moduleSchema(kind: Kind): Schema {
  const params = Object.entries(kind.params).map(([name, spec]): readonly [string, Schema] => {
    const says: Schema = spec.says ? { description: spec.says } : {};
    return [name, { ...paramSchema(spec), ...says }];
  });
  return object(
    {
      id: { type: 'string', pattern: ID_PATTERN },
      kind: { const: kind.name },
      label: text(LIMITS.label),
      params: object(Object.fromEntries(params)),
      locked: list({ enum: Object.keys(kind.params) }, 64),
      outputOhms: { type: 'object', additionalProperties: within(0, OHMS.max) },
      inputOhms: { type: 'object', additionalProperties: within(1, OHMS.max) },
      rack: text(200),
    },
    ['id', 'kind'],
    { description: `${kind.title}: ${kind.does}. ${kind.formula}` },
  );
}

function settingsSchema(): Schema {
  const { railVolts, sampleRate, duration, seed, loading, bpm } = SETTINGS;
  const number = (s: { default: number; min: number; max: number }): Schema => ({
    ...within(s.min, s.max),
    default: s.default,
  });
  return object({
    railVolts: number(railVolts),
    sampleRate: { anyOf: [{ const: 'auto' }, within(sampleRate.min, sampleRate.max)], default: 'auto' },
    duration: number(duration),
    seed: { type: 'integer', minimum: seed.min, maximum: seed.max, default: seed.default },
    loading: { enum: loading.options, default: loading.default },
    bpm: number(bpm),
  });
}

function targetField(field: TargetField): Schema {
  switch (field.type) {
    case 'quantity':
      return {
        ...text(TARGET_LIMITS.quantity),
        examples: [...QUANTITIES],
        description: `one of ${QUANTITIES.join(', ')} that the socket has; of a parameter also its unit`,
      };
    case 'number': {
      const others: Schema[] = [
        ...(field.none ? [{ type: 'null' }] : []),
        ...(field.silent ? [{ const: 'silent' }] : []),
      ];
      const figure = within(field.min, field.max);
      return others.length > 0 ? { anyOf: [figure, ...others] } : figure;
    }
    case 'socket':
      return socket;
    case 'module':
      return { type: 'string', pattern: ID_PATTERN };
    case 'steps':
      return list({ type: 'integer', minimum: 0, maximum: TARGET_LIMITS.steps - 1 }, TARGET_LIMITS.steps);
    case 'shape':
      return { enum: TARGET_SHAPES };
  }
}

/** One for each thing that can be wanted; without a word it is a range. */
function targetSchemas(): Schema[] {
  const [least, most] = TARGET_LIMITS.weight;
  return Object.entries(WANTS).map(([want, fields]) => {
    const own = Object.entries(fields);
    return object(
      {
        at: socket,
        want: { const: want },
        id: { type: 'string', pattern: ID_PATTERN },
        weight: within(least, most),
        ...Object.fromEntries(own.map(([name, field]) => [name, targetField(field)])),
      },
      ['at', ...(want === 'range' ? [] : ['want']), ...own.flatMap(([name, f]) => (f.optional ? [] : [name]))],
    );
  });
}

/** A hand that turns a knob; which knobs there are, and how far they go, their kinds say. */
function handSchema(): Schema {
  const point = object({ t: within(0, HANDS.longest), value: { type: 'number' } }, ['t', 'value']);
  return object(
    {
      at: socket,
      points: { ...list(point, HANDS.points), minItems: 1 },
      interpolation: { enum: HANDS.ways, default: 'linear' },
      loop: { type: 'boolean', default: false },
    },
    ['at', 'points'],
    { description: 'a hand on a knob, over time: points in the knob’s own unit' },
  );
}

/** One fader to many ends: the stages that lead to each. */
function macroSchema(): Schema {
  const module: Schema = { type: 'string', pattern: ID_PATTERN };
  const row = object(
    {
      end: socket,
      curve: { enum: CURVES },
      stages: { ...list(module, MACROS.stages), minItems: 1 },
      into: socket,
    },
    ['end', 'curve', 'stages'],
  );
  return object({ fader: module, rows: list(row, MACROS.rows) }, ['fader', 'rows'], {
    description: 'one fader to many ends, by ordinary stages',
  });
}

/** The JSON Schema of a patch document, made from what the parser itself reads by. */
export function patchSchema(): Schema {
  const cables = list(object({ from: socket, to: socket }, ['from', 'to']), LIMITS.cables);
  const state: Schema = {
    settings: settingsSchema(),
    modules: list({ oneOf: allKinds.map(moduleSchema) }, LIMITS.modules),
    cables,
    normals: list(
      {
        oneOf: [
          object({ to: socket, volts: within(-24, 24) }, ['to', 'volts']),
          object({ to: socket, from: socket, brokenBy: { const: 'source' } }, ['to', 'from']),
        ],
      },
      LIMITS.normals,
    ),
    targets: list({ oneOf: targetSchemas() }, LIMITS.targets),
    hands: list(handSchema(), HANDS.most),
    macros: list(macroSchema(), MACROS.most),
  };
  const reference = (key: string): Schema => ({ $ref: `#/properties/${key}` });
  const references = Object.fromEntries(Object.keys(state).map((key) => [key, reference(key)]));
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Fenvo patch, version 1',
    type: 'object',
    required: ['format', 'version'],
    additionalProperties: true,
    $defs: {
      same: object({ same: { type: 'string', pattern: '^(variants\\[\\d+\\]\\.)?modules$' } }, ['same'], {
        description:
          'only in a variant: the list that the module of this id has in the patch, or in a variant before this one',
      }),
    },
    properties: {
      format: { const: 'fenvo.patch' },
      version: { const: 1 },
      name: text(LIMITS.name),
      notes: text(LIMITS.notes),
      ...state,
      probes: list(object({ at: socket, label: text(LIMITS.label) }, ['at']), LIMITS.probes),
      order: list({ type: 'string', pattern: ID_PATTERN }, LIMITS.modules),
      dismissed: list(object({ code: text(40), at: text(100), reason: text(500) }, ['code', 'at', 'reason']), 2000),
      bypassed: list(
        object({ module: { type: 'string', pattern: ID_PATTERN }, cables }, ['module', 'cables'], {
          description: 'stages that are out of their path for now, with the cables that put them back',
        }),
        LIMITS.modules,
      ),
      variants: list(
        object({ name: text(LIMITS.label), ...references }, ['name'], {
          description: 'states of the patch that are kept under a name',
        }),
        LIMITS.variants,
      ),
    },
  };
}
