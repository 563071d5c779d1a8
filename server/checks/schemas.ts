import Joi from 'joi';
import { ASSET } from '../../core';
import type { CreateRequest, KeptFor, SaveRequest, TagsRequest } from '../../wire/patches';

export const idSchema = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{1,64}$/)
  .required();

const tags = Joi.array().items(Joi.string().trim().min(1).max(40)).max(20);

export const createSchema = Joi.object<CreateRequest>({
  patch: Joi.object().unknown(true).required(),
  tags,
});

export const saveSchema = Joi.object<SaveRequest>({
  key: Joi.string().pattern(/^[A-Za-z0-9-]{8,64}$/),
  baseRevision: Joi.number().integer().min(1).required(),
  patch: Joi.object().unknown(true).required(),
  tags,
});

export const tagsSchema = Joi.object<TagsRequest>({ tags: tags.required() });

export const removeSchema = Joi.object<{ forever: boolean }>({ forever: Joi.boolean().default(false) });

export const listSchema = Joi.object<{ deleted: boolean }>({ deleted: Joi.boolean().default(false) });

export const assetSchema = Joi.object<{ name: string; sampleRate: number }>({
  name: Joi.string().trim().min(1).max(200).required(),
  sampleRate: Joi.number().min(ASSET.leastRate).max(ASSET.mostRate).required(),
});

export const revisionSchema = Joi.number().integer().min(1).max(1e9).required();

export const keepSchema = Joi.object<{ for: KeptFor }>({
  for: Joi.string().valid('named', 'restored', 'started').required(),
});
