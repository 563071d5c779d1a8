import { allKinds } from '../kinds';
import type { Kind } from '../kinds/kind';
import { RACK_LIMITS } from './rackTypes';
import { list, object, paramSchema, text, within } from './schema';
import type { Schema } from './schema';
import { ID_PATTERN, LIMITS, OHMS } from './types';

const id: Schema = { type: 'string', pattern: ID_PATTERN };
const whole = (minimum: number, maximum: number): Schema => ({ type: 'integer', minimum, maximum });
const pair = (items: Schema): Schema => ({ type: 'array', items, minItems: 2, maxItems: 2 });

/** What a channel of a kind can do. */
function modeFields(kind: Kind): Schema {
  const params = Object.entries(kind.params);
  const each = (schemaOf: (name: string) => Schema | null): Schema =>
    object(
      Object.fromEntries(
        params.flatMap(([name]) => {
          const schema = schemaOf(name);
          return schema ? [[name, schema] as const] : [];
        }),
      ),
    );
  const specOf = (name: string): Schema => {
    const spec = kind.params[name];
    return spec ? paramSchema(spec) : {};
  };
  return {
    kind: { const: kind.name },
    fixed: each(specOf),
    ranges: each((name) => {
      const spec = kind.params[name];
      return spec?.type === 'number' ? pair(within(spec.min, spec.max)) : null;
    }),
    choices: each((name) => ({ ...list(specOf(name), 32), minItems: 1 })),
  };
}

function channelSchemas(): Schema[] {
  const ohms = (least: number): Schema => ({ type: 'object', additionalProperties: within(least, OHMS.max) });
  const socket: Schema = { type: 'string', pattern: '^[A-Za-z0-9]+$' };
  const from: Schema = { type: 'string', pattern: `${ID_PATTERN.slice(0, -1)}\\.[A-Za-z0-9]+$` };
  const common: Schema = {
    id,
    label: text(LIMITS.label),
    normals: list(
      {
        oneOf: [
          object({ to: socket, volts: within(-24, 24) }, ['to', 'volts']),
          object({ to: socket, from, brokenBy: { const: 'source' } }, ['to', 'from']),
        ],
      },
      RACK_LIMITS.normals,
    ),
    outputOhms: ohms(0),
    inputOhms: ohms(1),
    knobs: {
      type: 'object',
      additionalProperties: object(
        {
          scale: pair(within(-1e6, 1e6)),
          points: { ...list(pair(within(-1e6, 1e6)), RACK_LIMITS.points), minItems: 2 },
        },
        ['scale'],
        { description: 'printed ends of the panel, and which figure stands at which pointer position, 0..1' },
      ),
    },
    measured: object({ gain: within(-10, 10), offsetVolts: within(-12, 12), spread: within(0, 1), at: text(40) }),
  };
  const modes = {
    ...list({ oneOf: allKinds.map((k) => object(modeFields(k), ['kind'])) }, RACK_LIMITS.modes),
    minItems: 1,
  };
  return [
    ...allKinds.map((kind) => object({ ...common, ...modeFields(kind) }, ['id', 'kind'])),
    object({ ...common, modes }, ['id', 'modes'], { description: 'a switch turns it into one of these at a time' }),
  ];
}

/** The JSON Schema of a rack document, made from what the parser itself reads by. */
export function rackSchema(): Schema {
  const moduleOf = object(
    {
      id,
      name: text(LIMITS.label),
      type: text(LIMITS.label),
      hp: whole(1, RACK_LIMITS.hp),
      row: whole(1, RACK_LIMITS.rows),
      at: whole(0, RACK_LIMITS.place),
      channels: { ...list({ oneOf: channelSchemas() }, RACK_LIMITS.channels), minItems: 1 },
    },
    ['id', 'channels'],
  );
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Fenvo rack, version 1',
    type: 'object',
    required: ['format', 'version'],
    additionalProperties: true,
    properties: {
      format: { const: 'fenvo.rack' },
      version: { const: 1 },
      name: text(LIMITS.name),
      notes: text(LIMITS.notes),
      modules: list(moduleOf, RACK_LIMITS.modules),
    },
  };
}
