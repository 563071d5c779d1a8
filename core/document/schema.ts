import type { Declared, RecordField } from './fields';
import { patchField, stateField, variantField } from './patch';
import { rackField } from './rackFields';
import { SOCKET_PATTERN } from './sockets';
import { ID_PATTERN, LIMITS } from './limits';
import type { Json } from './result';

/** The JSON Schemas of Fenvo's documents, made from what the parser itself reads by. */

export type Schema = { readonly [key: string]: Json };

const same: Schema = { $ref: '#/$defs/same' };

/** A declared value as a JSON Schema. */
export function schemaOf(field: Declared): Schema {
  const usual = field.default ?? field.implied;
  const plain = shapeOf(field);
  // An empty list or a whole record that is filled in needs no telling.
  const tells = usual !== undefined && (typeof usual !== 'object' || usual === null);
  return {
    ...plain,
    ...(tells && { default: usual as Json }),
    ...(field.says !== undefined && { description: field.says }),
  };
}

function shapeOf(field: Declared): Schema {
  switch (field.type) {
    case 'text':
      return {
        type: 'string',
        ...(field.pattern ? { pattern: field.pattern.shape.source } : { maxLength: field.longest }),
        ...(field.least !== undefined && { minLength: field.least }),
        ...(field.examples && { examples: [...field.examples] }),
      };
    case 'number': {
      const type = field.whole ? 'integer' : 'number';
      return {
        type: field.none ? [type, 'null'] : type,
        ...(field.min > -Infinity && { minimum: field.min }),
        ...(field.max < Infinity && { maximum: field.max }),
      };
    }
    case 'choice':
      return field.options.length === 1 ? { const: field.options[0] as Json } : { enum: field.options };
    case 'flag':
      return { type: 'boolean' };
    case 'any':
      return field.object ? { type: 'object' } : {};
    case 'socket':
      return { type: 'string', pattern: SOCKET_PATTERN };
    case 'module':
      return { type: 'string', pattern: ID_PATTERN };
    case 'list': {
      const whole: Schema = {
        type: 'array',
        items: schemaOf(field.item),
        maxItems: field.most,
        ...(field.least && { minItems: field.least.count }),
      };
      return field.shared ? { anyOf: [whole, same] } : whole;
    }
    case 'pair':
      return { type: 'array', prefixItems: field.of.map(schemaOf), items: false, minItems: 2 };
    case 'map':
      return {
        type: 'object',
        additionalProperties: schemaOf(field.item),
        ...(field.most !== undefined && { maxProperties: field.most }),
        ...(field.key && { propertyNames: schemaOf(field.key) }),
      };
    case 'record':
      return recordSchema(field);
    case 'tagged':
      return { oneOf: [...field.of.values()].map(schemaOf) };
    case 'either':
      return { anyOf: field.of.map(schemaOf) };
  }
}

function recordSchema({ entries }: RecordField): Schema {
  const required = entries.flatMap(([key, f]) => (f.optional || f.default !== undefined ? [] : [key]));
  return {
    type: 'object',
    additionalProperties: false,
    properties: Object.fromEntries(entries.map(([key, f]) => [key, schemaOf(f)])),
    ...(required.length > 0 && { required }),
  };
}

/** A document: its declared fields, and any others on top. */
export function documentSchema(title: string, format: string, record: RecordField, more: Schema): Schema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    ...recordSchema(record),
    required: ['format', 'version'],
    additionalProperties: true,
    properties: {
      format: { const: format },
      version: { const: 1 },
      ...(recordSchema(record).properties as Schema),
      ...more,
    },
  };
}

/** The JSON Schema of a patch document. */
export function patchSchema(): Schema {
  const references = Object.keys(stateField.fields).map((key) => [key, { $ref: `#/properties/${key}` }] as const);
  const variant = {
    ...recordSchema(variantField),
    properties: { name: schemaOf(variantField.fields.name), ...Object.fromEntries(references) },
    description: variantField.says ?? '',
  };
  return {
    ...documentSchema('Fenvo patch, version 1', 'fenvo.patch', patchField, {
      variants: { type: 'array', items: variant, maxItems: LIMITS.variants },
    }),
    $defs: {
      same: {
        type: 'object',
        additionalProperties: false,
        properties: { same: { type: 'string', pattern: '^(variants\\[\\d+\\]\\.)?modules$' } },
        required: ['same'],
        description:
          'only in a variant: the list that the module of this id has in the patch, or in a variant before this one',
      },
    },
  };
}

/** The JSON Schema of a rack document. */
export const rackSchema = (): Schema => documentSchema('Fenvo rack, version 1', 'fenvo.rack', rackField, {});
