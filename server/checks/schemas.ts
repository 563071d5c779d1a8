import Joi from 'joi';
import { ASSET } from '../../core';
import { SHEET_FORMATS } from '../../wire/racks';
import type { CreateRackRequest, PairingRequest, SaveRackRequest, SheetFormat, Ticks } from '../../wire/racks';
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

export const assetIdsSchema = Joi.object<{ ids: string[] }>({
  ids: Joi.array()
    .items(Joi.string().pattern(/^[A-Za-z0-9_-]{1,64}$/))
    .max(10_000)
    .required(),
});

export const revisionSchema = Joi.number().integer().min(1).max(1e9).required();

export const keepSchema = Joi.object<{ for: KeptFor }>({
  for: Joi.string().valid('named', 'restored', 'started').required(),
});

const key = Joi.string().pattern(/^[A-Za-z0-9-]{8,64}$/);

export const createRackSchema = Joi.object<CreateRackRequest>({ rack: Joi.object().unknown(true).required() });

export const saveRackSchema = Joi.object<SaveRackRequest>({
  key,
  baseRevision: Joi.number().integer().min(1).required(),
  rack: Joi.object().unknown(true).required(),
});

const rackId = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{1,64}$/)
  .allow('')
  .default('');

export const onRackSchema = Joi.object<{ rack: string }>({ rack: rackId });

export const sheetSchema = Joi.object<{ rack: string; format: SheetFormat; size: 'A4' | 'LETTER' }>({
  rack: rackId,
  format: Joi.string()
    .valid(...SHEET_FORMATS)
    .default('json'),
  size: Joi.string().valid('A4', 'LETTER').default('A4'),
});

/** Steps of the largest patches, each with its word. */
const MOST_TICKS = 8000;

export const ticksSchema = Joi.object<{ ticks: Ticks }>({
  ticks: Joi.object()
    .pattern(
      Joi.string().max(120),
      Joi.object({
        done: Joi.boolean().required(),
        at: Joi.number().integer().min(0).max(8.64e15).required(),
        read: Joi.string().allow('').max(200),
      }),
    )
    .max(MOST_TICKS)
    .required(),
});

export const pairingSchema = Joi.object<PairingRequest>({ patch: idSchema, rack: rackId });
