import Joi from 'joi';
import type { Declared, Field, TextField } from '../../core/document/fields';

/** A declared value as Joi checks it; of what comes in an address, text that reads as a number or a flag is one. */
export const joiOf = <T>(field: Field<T>): Joi.Schema<T> => {
  const schema = shapeOf(field);
  if (field.default !== undefined) return schema.default(field.default) as Joi.Schema<T>;
  return (field.optional ? schema : schema.required()) as Joi.Schema<T>;
};

function shapeOf(field: Declared): Joi.Schema {
  switch (field.type) {
    case 'text':
      return textSchema(field);
    case 'number': {
      const within = Joi.number().min(field.min).max(field.max);
      const number = field.whole ? within.integer() : within;
      return field.none ? number.allow(null) : number;
    }
    case 'choice':
      return Joi.valid(...field.options);
    case 'flag':
      return Joi.boolean();
    case 'any':
      return field.object ? Joi.object().unknown(true) : Joi.any();
    case 'socket':
    case 'module':
      return Joi.string();
    case 'list': {
      const items = Joi.array().items(joiOf(field.item).optional()).max(field.most);
      return field.least ? items.min(field.least.count) : items;
    }
    case 'pair':
      return Joi.array()
        .ordered(...field.of.map(joiOf))
        .length(2);
    case 'map': {
      const entries = ownKeys
        .object()
        .pattern(field.key ? textSchema(field.key) : Joi.string(), joiOf(field.item)) as Joi.ObjectSchema;
      return field.most === undefined ? entries : entries.max(field.most);
    }
    case 'record':
      return Joi.object(Object.fromEntries(field.entries.map(([key, f]) => [key, joiOf(f)])));
    case 'tagged':
      return Joi.alternatives(...[...field.of.values()].map(joiOf));
    case 'either':
      return Joi.alternatives(...field.of.map(joiOf));
  }
}

/** Joi copies an object by assignment, which loses a key called `__proto__` unseen: no entry may be called that. */
const ownKeys = Joi.extend((joi: typeof Joi) => ({
  type: 'object',
  base: joi.object(),
  messages: { 'object.proto': '{{#label}} must not have the key __proto__' },
  coerce: {
    from: 'object',
    method: (value: object, helpers: Joi.CustomHelpers) =>
      Object.hasOwn(value, '__proto__') ? { value, errors: [helpers.error('object.proto')] } : { value },
  },
})) as typeof Joi;

function textSchema({ longest, least = 0, trimmed, pattern }: TextField): Joi.StringSchema {
  const length = Joi.string().max(longest);
  const text = least > 0 ? length.min(least) : length.allow('');
  const shaped = pattern ? text.pattern(pattern.shape) : text;
  return trimmed ? shaped.trim() : shaped;
}
