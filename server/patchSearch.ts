import { QueryTypes } from 'sequelize';
import { allKinds, kindTitle } from '../core';
import type { Kind } from '../core';
import type { ChannelUse, FoundPatches, PatchesAbout, PatchListing, RackCheck, RackFit } from '../wire/patches';
import type { Column, Narrowing, SearchIdsRequest, SearchRequest } from '../wire/requests';
import { ApiError } from './checks/errors';
import type { Database } from './database';
import { Fits, OF_VERSIONS } from './fits';
import type { CheckedRack } from './fits';
import type { Patches } from './patches';

/** Patches by what is looked for. All is asked of `patch_index` and `patch_words`, which the database keeps itself. */

type Values = Record<string, unknown>;
interface Clause {
  readonly sql: string;
  readonly values: Values;
}

/** The tag of the patches that come with Fenvo. */
const DEMO = 'demo';
/** Errors and warnings count as issues; `weight` sorts by them. */
const ISSUE = 1e3;

/** How many patches are named that use a channel. */
const NAMED = 8;

const ORDERS: Readonly<Record<Column, string>> = {
  name: 'i.name',
  arrives: 'i.destination',
  findings: 'i.weight',
  updatedAt: 'i.updatedAt',
};

/** The words of a text, as the index has them. */
const tokens = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}\p{M}]+/gu) ?? [];

/** What a kind goes by. What it does is said in sentences, whose words would find too much. */
const calledOf = (kind: Kind): string => [kind.title, ...(kind.aliases ?? [])].join(' ');

/** Kinds that are called so: by their title, or what else they go by. */
const kindsCalled = (token: string): string[] =>
  allKinds.filter((k) => tokens(calledOf(k)).some((word) => word.startsWith(token))).map((k) => k.name);

/** Every word begins one in the name, the notes, the tags, a module's name or an end, or is what a module is. */
function matching(words: string): string | null {
  const all = tokens(words).map((token) => {
    const kinds = kindsCalled(token).map((k) => `"${k}"`);
    const word = `{name tags notes modules ends} : "${token}" *`;
    return kinds.length > 0 ? `(${word} OR {kinds} : (${kinds.join(' OR ')}))` : `(${word})`;
  });
  return all.length > 0 ? all.join(' AND ') : null;
}

const narrowed: Readonly<Record<Narrowing, string>> = {
  pitch: "i.reached LIKE '%.pitch %'",
  issues: `i.weight >= ${ISSUE}`,
  fits: "f.missing = '[]'",
  played:
    'i.patchId IN (SELECT patchId FROM sessions WHERE deletedAt IS NULL AND simulated IS NULL AND lastUsed >= :since)',
};
/** What of a patch has to be looked at before it is known whether it is among them. */
const unknown: Readonly<Partial<Record<Narrowing, string>>> = {
  pitch: 'NOT i.summarised',
  issues: 'NOT i.summarised',
  fits: 'f.missing IS NULL',
};

/** Of a tag by the name of its value. */
const tagged = (value: string): string => `EXISTS (SELECT 1 FROM json_each(i.tags) WHERE value = :${value})`;

/** What does not hang on what is yet to be looked at. */
function wantedOf({ words, tags, uses, only, since }: SearchIdsRequest, deleted: boolean): Clause {
  const match = matching(words);
  const parts = [
    `i.deletedAt IS ${deleted ? 'NOT NULL' : 'NULL'}`,
    ...(match === null ? [] : ['i.n IN (SELECT rowid FROM patch_words WHERE patch_words MATCH :match)']),
    ...tags.map((_, k) => tagged(`tag${k}`)),
    ...(uses === '' ? [] : ["i.kinds LIKE '% ' || :uses || ' %'"]),
    ...(only.includes('played') ? [narrowed.played] : []),
  ];
  const values = {
    match,
    uses,
    since: momentOf(since),
    ...Object.fromEntries(tags.map((tag, k) => [`tag${k}`, tag])),
  };
  return { sql: parts.join(' AND '), values };
}

/** @throws ApiError where it is a date that no calendar has. */
function momentOf(since: string): Date {
  const moment = new Date(since === '' ? 0 : since);
  if (Number.isNaN(moment.getTime())) throw new ApiError(400, 'bad-request', `Invalid request body: no date ${since}.`);
  return moment;
}

const and = (parts: readonly string[]): string => parts.map((p) => `(${p})`).join(' AND ');

export class PatchSearch {
  private readonly fits: Fits;

  constructor(
    private readonly db: Database,
    private readonly patches: Patches,
  ) {
    this.fits = new Fits(db);
  }

  /** Some rows of what is looked for, and how many there are. */
  async rows(request: SearchRequest): Promise<FoundPatches> {
    const rack = await this.fits.rack(request.rack);
    const { from, base, all } = this.clauses(request, rack, request.deleted);
    const looked = request.only.filter((name) => rack || name !== 'fits').flatMap((name) => unknown[name] ?? []);
    const [total, pending, found] = await Promise.all([
      this.count(`${from} WHERE ${all.sql}`, all.values),
      looked.length === 0 ? 0 : this.count(`${from} WHERE ${base.sql} AND (${looked.join(' OR ')})`, base.values),
      this.ask<{ id: string; missing: string | null; standIns: number | null }>(
        `SELECT i.patchId AS id, f.missing, f.standIns ${from} WHERE ${all.sql} ${this.order(request)} LIMIT :count OFFSET :first`,
        { ...all.values, count: request.count, first: request.from },
      ),
    ]);
    const fit = new Map(found.map((f) => [f.id, fitOf(f)]));
    const unchecked = found.filter((f) => f.missing === null).map((f) => f.id);
    if (rack && request.only.includes('fits') && pending > 0) this.fits.want(rack.id, 'all');
    else if (rack && !request.deleted && unchecked.length > 0) this.fits.want(rack.id, unchecked);
    const listed = new Map((await this.patches.listed(found.map((f) => f.id))).map((p) => [p.id, p]));
    const patches = found.flatMap(({ id }): PatchListing[] => {
      const row = listed.get(id);
      return row ? [{ ...row, fit: fit.get(id) ?? null }] : [];
    });
    return { patches, total, pending };
  }

  /** The ids of all that is looked for, in order. */
  async ids(request: SearchIdsRequest): Promise<string[]> {
    const { from, all } = this.clauses(request, await this.fits.rack(request.rack), false);
    const rows = await this.ask<{ id: string }>(
      `SELECT i.patchId AS id ${from} WHERE ${all.sql} ${this.order(request)}`,
      all.values,
    );
    return rows.map((r) => r.id);
  }

  async about(): Promise<PatchesAbout> {
    const here = 'FROM patch_index i WHERE i.deletedAt IS NULL';
    const [count, demo, tags, kinds, missing] = await Promise.all([
      this.count(here),
      this.count(`${here} AND ${tagged('demo')}`, { demo: DEMO }),
      this.ask<{ tag: string }>(
        "SELECT DISTINCT t.value AS tag FROM patch_index i, json_each(i.tags) t WHERE i.deletedAt IS NULL AND t.type = 'text'",
      ),
      this.ask<{ kinds: string }>(`SELECT DISTINCT i.kinds ${here}`),
      this.ask<{ id: string }>(`SELECT i.patchId AS id ${here} AND NOT i.summarised`),
    ]);
    // A list is narrowed and sorted by summaries: all are made, not only those that are looked at.
    for (const { id } of missing) this.patches.summaries.want(id);
    const used = new Set(kinds.flatMap((k) => k.kinds.split(' ').filter(Boolean)));
    return {
      count,
      demo,
      tags: tags.map((t) => t.tag).sort((a, b) => a.localeCompare(b)),
      kinds: [...used].map((name) => [name, kindTitle(name)] as const).sort(([, a], [, b]) => a.localeCompare(b)),
    };
  }

  /** Which patches say that they use a channel, by channel. */
  async uses(): Promise<ChannelUse[]> {
    const rows = await this.ask<{ channel: string; name: string }>(
      `SELECT u.value AS channel, i.name FROM patch_index i JOIN patches p ON p.id = i.patchId,
        json_each(CASE WHEN json_valid(p.summary) THEN p.summary ELSE '{}' END, '$.summary.uses') u
        WHERE i.deletedAt IS NULL ORDER BY i.updatedAt DESC, i.patchId`,
    );
    const byChannel = new Map<string, string[]>();
    for (const { channel, name } of rows) {
      const names = byChannel.get(channel) ?? [];
      names.push(name);
      byChannel.set(channel, names);
    }
    return [...byChannel].map(([channel, names]) => ({
      channel,
      names: names.slice(0, NAMED),
      more: Math.max(0, names.length - NAMED),
    }));
  }

  /** Which of several patches can be patched with a rack. */
  async check(ids: readonly string[], rackId: string): Promise<RackCheck> {
    const rack = await this.fits.rack(rackId);
    if (!rack) return { fitting: 0, pending: 0, short: [] };
    const rows = await this.ask<{ id: string; name: string; missing: string | null }>(
      `SELECT i.patchId AS id, i.name, f.missing ${fromWith(rack)}
        WHERE i.deletedAt IS NULL AND i.patchId IN (SELECT value FROM json_each(:ids))`,
      { ids: JSON.stringify(ids), rack: rack.id, rackVersion: rack.version },
    );
    const pending = rows.filter((r) => r.missing === null).length;
    if (pending > 0) this.fits.want(rack.id, ids);
    const short = rows
      .map(({ id, name, missing }) => ({ id, name, missing: JSON.parse(missing ?? '[]') as RackFit['short'] }))
      .filter((r) => r.missing.length > 0)
      .sort((a, b) => a.missing.length - b.missing.length || a.name.localeCompare(b.name));
    return { fitting: rows.length - pending - short.length, pending, short };
  }

  /** Until every check against a rack that is wanted is made. */
  settled(): Promise<void> {
    return this.fits.settled();
  }

  private clauses(request: SearchIdsRequest, rack: CheckedRack | null, deleted: boolean) {
    const { sql, values } = wantedOf(request, deleted);
    const known = { ...values, rack: rack?.id ?? '', rackVersion: rack?.version ?? '' };
    // Without a rack nothing is checked against one, and nothing fits.
    const only = request.only.filter((name) => name !== 'played').map((name) => narrowed[name]);
    return {
      from: fromWith(rack),
      base: { sql, values: known },
      all: { sql: and([sql, ...only]), values: known },
    };
  }

  private order({ by, down }: SearchIdsRequest): string {
    return `ORDER BY ${ORDERS[by]} ${down ? 'DESC' : 'ASC'}, i.updatedAt DESC, i.patchId`;
  }

  private async count(from: string, values: Values = {}): Promise<number> {
    const [row] = await this.ask<{ n: number }>(`SELECT count(*) AS n ${from}`, values);
    return row?.n ?? 0;
  }

  private ask<T extends object>(sql: string, values: Values = {}): Promise<T[]> {
    return this.db.sequelize.query<T>(sql, { replacements: values, type: QueryTypes.SELECT });
  }
}

/** The index, with what is known of the rack: nothing without one. */
const fromWith = (rack: CheckedRack | null): string =>
  rack
    ? `FROM patch_index i LEFT JOIN fits f ON f.patchId = i.patchId AND f.rackId = :rack AND f.ofVersions = ${OF_VERSIONS}`
    : 'FROM patch_index i JOIN (SELECT NULL AS missing, NULL AS standIns) f';

const fitOf = ({ missing, standIns }: { missing: string | null; standIns: number | null }): RackFit | null =>
  missing === null ? null : { short: JSON.parse(missing) as RackFit['short'], standIns: standIns ?? 0 };
