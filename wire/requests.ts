import {
  anyObject,
  byDefault,
  choice,
  flag,
  list,
  map,
  number,
  optional,
  record,
  text,
  whole,
} from '../core/document/fields';
import type { RecordOf, ValueOf } from '../core/document/fields';
import { practiceAnswerField } from '../core/practice/record';
import { READ_QUANTITIES, READING_LIMITS } from '../core/bench/quantities';
import { ASSET } from '../core/document/types';

/** What a page may ask of the server, each field declared once: types here, checks in the server. */

/** The id of something that is stored; a rack's may be empty: without one. */
export const storedId = text(64, { least: 1, pattern: { shape: /^[A-Za-z0-9_-]+$/, words: 'an id' } });
const rackId = byDefault(text(64, { pattern: { shape: /^[A-Za-z0-9_-]*$/, words: 'an id' } }), '');
export const revision = whole(1, 1e9);
/** Names a save: sent again, it is recognised as done. */
const saveKey = text(64, { least: 8, pattern: { shape: /^[A-Za-z0-9-]+$/, words: 'a key' } });
/** The most tags of one patch. */
export const MOST_TAGS = 20;
const tags = list(text(40, { least: 1, trimmed: true }), MOST_TAGS);

export const createRequest = record({ patch: anyObject, tags: optional(tags) });
export type CreateRequest = ValueOf<typeof createRequest>;

/** Names of what was changed, for the history. */
const changes = list(text(200, { least: 1 }), 40);

export const saveRequest = record({
  ...createRequest.fields,
  baseRevision: revision,
  key: optional(saveKey),
  changes: optional(changes),
});
export type SaveRequest = ValueOf<typeof saveRequest>;

export const tagsRequest = record({ tags });
export type TagsRequest = ValueOf<typeof tagsRequest>;

export const removeRequest = record({ forever: byDefault(flag, false) });
export const listRequest = record({ deleted: byDefault(flag, false) });

/** What a list of patches is sorted by. */
export const COLUMNS = ['name', 'arrives', 'findings', 'updatedAt'] as const;
export type Column = (typeof COLUMNS)[number];
/** What it can be narrowed to, beside words, tags and a kind of module. */
export const NARROWINGS = ['pitch', 'issues', 'fits', 'played'] as const;
export type Narrowing = (typeof NARROWINGS)[number];

const wantedFields = {
  words: byDefault(text(200), ''),
  tags: byDefault(tags, []),
  /** The kind of a module that is in it; empty for any. */
  uses: byDefault(text(40), ''),
  only: byDefault(list(choice(NARROWINGS), NARROWINGS.length), []),
  by: byDefault(choice(COLUMNS), 'updatedAt'),
  down: byDefault(flag, true),
};
/** Patches that are looked for. */
export type Wanted = ValueOf<RecordOf<typeof wantedFields>>;

/** A search that is kept under a name. */
export const savedSearch = record({ name: text(60, { least: 1, trimmed: true }), ...wantedFields });
export type SavedSearch = ValueOf<typeof savedSearch>;

const searchFields = {
  ...wantedFields,
  /** The rack that patches are checked against. */
  rack: rackId,
  /** Played since then counts, an ISO date. */
  since: byDefault(text(40, { pattern: { shape: /^(\d{4}-\d\d-\d\dT[\d:.]+Z)?$/, words: 'an ISO date' } }), ''),
};
/** The ids of all patches that are looked for. */
export const searchIdsRequest = record(searchFields);
export type SearchIdsRequest = ValueOf<typeof searchIdsRequest>;
/** Some rows of what is looked for. */
export const searchRequest = record({
  ...searchFields,
  deleted: byDefault(flag, false),
  from: byDefault(whole(0, 1e9), 0),
  count: byDefault(whole(0, 200), 60),
});
export type SearchRequest = ValueOf<typeof searchRequest>;

/** The most patches that are worked on at once. */
export const MOST_AT_ONCE = 20_000;
const ids = list(storedId, MOST_AT_ONCE);
/** What is done with several patches in one go. */
export const severalRequest = record({ ids, do: choice(['tag', 'delete', 'restore']), tags: byDefault(tags, []) });
export type SeveralRequest = ValueOf<typeof severalRequest>;
/** Several patches against a rack. */
export const rackCheckRequest = record({ ids, rack: storedId });
export type RackCheckRequest = ValueOf<typeof rackCheckRequest>;
/** The documents of several patches. */
export const documentsRequest = record({ ids: list(storedId, 100) });
export type DocumentsRequest = ValueOf<typeof documentsRequest>;

/** What a version is kept for ever for. */
const keptFor = choice(['named', 'restored', 'started']);
export type KeptFor = ValueOf<typeof keptFor>;
export const keepRequest = record({ for: keptFor });

/** A recording that is sent: its samples are the body. */
export const assetRequest = record({
  name: text(200, { least: 1, trimmed: true }),
  sampleRate: number(ASSET.leastRate, ASSET.mostRate),
});
export const assetIdsRequest = record({ ids: list(storedId, 10_000) });

export const createRackRequest = record({ rack: anyObject });
export type CreateRackRequest = ValueOf<typeof createRackRequest>;

export const saveRackRequest = record({ ...createRackRequest.fields, baseRevision: revision, key: optional(saveKey) });
export type SaveRackRequest = ValueOf<typeof saveRackRequest>;

export const onRackRequest = record({ rack: rackId });

const sheetFormat = choice(['json', 'md', 'csv', 'pdf', 'html', 'svg']);
export type SheetFormat = ValueOf<typeof sheetFormat>;
export const sheetRequest = record({
  rack: rackId,
  /** With the rack's modules as they were measured. */
  measured: byDefault(flag, false),
  format: byDefault(sheetFormat, 'json'),
  size: byDefault(choice(['A4', 'LETTER']), 'A4'),
});

const tick = record({
  done: flag,
  /** Milliseconds since 1970. */
  at: whole(0, 8.64e15),
  /** What was read there, as it was typed, where it was one line. */
  read: optional(text(200)),
  /** The same of each figure, by its quantity. */
  reads: optional(map(text(40), { most: 8 })),
});
/** Whether a step is done, and since when; the later word counts. */
export type Tick = ValueOf<typeof tick>;

/** Steps of the largest patches, each with its word. */
const MOST_TICKS = 8000;
const step = text(120, { pattern: { shape: /^(?!__proto__$)/, words: 'the id of a step' } });
const ticks = map(tick, { most: MOST_TICKS, key: step });
/** By the step's id. */
export type Ticks = ValueOf<typeof ticks>;
export const ticksRequest = record({ ticks });

export const pairingRequest = record({ patch: storedId, rack: rackId });
export type PairingRequest = ValueOf<typeof pairingRequest>;

const simulatedRack = record({ seed: whole(0, 4_294_967_295), faults: list(anyObject, 3), surprise: flag });

/** A session that is begun at a rack, or at one that is simulated. */
export const openSessionRequest = record({
  patch: storedId,
  rack: rackId,
  simulated: optional(simulatedRack),
});
export type OpenSessionRequest = ValueOf<typeof openSessionRequest>;

export const changeSessionRequest = record({
  notes: optional(text(20_000)),
  ended: optional(flag),
  /** A simulated rack that was mended. */
  simulated: optional(simulatedRack),
});
export type ChangeSessionRequest = ValueOf<typeof changeSessionRequest>;

const sentReading = record({
  at: text(100, { least: 3 }),
  quantity: choice(READ_QUANTITIES),
  value: number(-READING_LIMITS.value, READING_LIMITS.value),
  plusMinus: optional(number(0, READING_LIMITS.value)),
  step: optional(text(READING_LIMITS.step)),
  knobs: optional(list(record({ at: text(100), value: number(-1e9, 1e9) }), READING_LIMITS.knobs)),
  corrects: optional(whole(1, 1e12)),
});
export type SentReading = ValueOf<typeof sentReading>;
export const readingsRequest = record({ readings: list(sentReading, 500) });
export type ReadingsRequest = ValueOf<typeof readingsRequest>;

export const fileRequest = record({
  name: text(200, { least: 1, trimmed: true }),
  kind: choice(['photograph', 'recording']),
  type: choice(['image/jpeg', 'image/png', 'audio/wav']),
  at: optional(text(100)),
});
export type FileRequest = ValueOf<typeof fileRequest>;
export const trendRequest = record({ patch: storedId, at: text(100, { least: 3 }), quantity: choice(READ_QUANTITIES) });
export const logRequest = record({
  rack: optional(storedId),
  sessions: optional(text(20_000)),
  /** Of one simulated rack, by its seed; `none`: of real ones alone. Left out: of all. */
  simulated: optional(text(12, { pattern: { shape: /^(none|\d+)$/, words: 'none or a seed' } })),
  format: byDefault(choice(['zip', 'json', 'csv']), 'zip'),
});

const setItem = record({
  patch: storedId,
  /** A variant of it by its name; empty for the patch as it is. */
  variant: byDefault(text(80), ''),
  notes: byDefault(text(2000), ''),
  minutes: byDefault(number(0, 1000), 5),
});
export type SetItemRequest = ValueOf<typeof setItem>;

const setList = { name: text(200, { least: 1, trimmed: true }), rack: rackId, items: list(setItem, 100) };
export const createSetListRequest = record(setList);
export type CreateSetListRequest = ValueOf<typeof createSetListRequest>;
export const saveSetListRequest = record({ ...setList, baseRevision: revision });
export type SaveSetListRequest = ValueOf<typeof saveSetListRequest>;

/** Answers of practice, as they are given or imported. */
export const answersRequest = record({ answers: list(practiceAnswerField, 2000) });
export type AnswersRequest = ValueOf<typeof answersRequest>;

/** Walkthroughs: their documents are read by the core. */
export const addWalkthroughRequest = record({ walkthrough: anyObject });
export type AddWalkthroughRequest = ValueOf<typeof addWalkthroughRequest>;
export const saveWalkthroughRequest = record({ walkthrough: anyObject, baseRevision: revision });
export type SaveWalkthroughRequest = ValueOf<typeof saveWalkthroughRequest>;

/** From one patch, or variant of it, to another. */
export const changeRequest = record({
  from: storedId,
  fromVariant: byDefault(text(80), ''),
  to: storedId,
  toVariant: byDefault(text(80), ''),
  rack: rackId,
});

/** Where a part of a backup begins. */
export const uploadRequest = record({ at: whole(0, 1e12) });
