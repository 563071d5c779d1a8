import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { printPatch } from '../core';
import { randomPatch } from '../core/testing/randomPatch';
import { stream } from '../core/kinds/random';
import { openDatabase } from '../server/database';
import { outgrown } from '../server/history';
import type { Version } from '../server/history';
import { PatchRow, RevisionRow } from '../server/models';
import { Patches } from '../server/patches';

/** A year of heavy use: what it takes on the disk, and how quickly the patches list lists it. Figures, no verdict. */

const [PATCHES, SAVES, MODULES] = [200, 500, 40];
const DAY = 86_400_000;
const END = new Date('2026-11-01T18:00:00Z').getTime();

/** When the saves of one patch were made: in evenings of twenty, over the year. */
function evenings(random: () => number): number[] {
  const starts = Array.from({ length: SAVES / 20 }, () => END - 365 * DAY * random());
  return starts.flatMap((s) => Array.from({ length: 20 }, (_, i) => s + i * 4 * 60_000)).sort((a, b) => a - b);
}

/** The versions that are left of them, let go as they were saved. */
function left(times: readonly number[]): Version[] {
  let kept: Version[] = [];
  times.forEach((at, i) => {
    kept.push({ revision: i + 1, savedAt: new Date(at), keptFor: null });
    const gone = new Set(outgrown(kept, new Date(at)));
    kept = kept.filter((v) => !gone.has(v.revision));
  });
  return kept;
}

const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-year-'));
const db = await openDatabase(folder);
const random = stream(5);
let versions = 0;
for (let n = 0; n < PATCHES; n++) {
  const id = `patch${n}`;
  const kept = left(evenings(random));
  const newest = kept.at(-1) as Version;
  const bodyOf = (revision: number): string =>
    JSON.stringify(printPatch(randomPatch(1000 * n + revision, { modules: MODULES, duration: 1 })));
  const at = { createdAt: newest.savedAt, updatedAt: newest.savedAt, deletedAt: null };
  const empty = { tags: '[]', summary: null, summaryRevision: null };
  await PatchRow.create({ id, revision: newest.revision, name: id, body: bodyOf(newest.revision), ...at, ...empty });
  await RevisionRow.bulkCreate(
    kept.map(({ revision, savedAt }) => ({ patchId: id, revision, name: id, body: bodyOf(revision), savedAt })),
  );
  versions += kept.length;
}
const patches = new Patches(db);
const summed = performance.now();
await patches.list(false);
await patches.summaries.settled();
const perSummary = (performance.now() - summed) / PATCHES;
const times = Array.from({ length: 20 }, () => 0);
for (let i = 0; i < times.length; i++) {
  const start = performance.now();
  await patches.list(false);
  times[i] = performance.now() - start;
}
await db.sequelize.close();
const bytes = readdirSync(folder).reduce((sum, name) => sum + statSync(path.join(folder, name)).size, 0);
const memory = process.memoryUsage().rss / 1e6;
console.log(
  `${PATCHES} patches of ${MODULES} modules, ${PATCHES * SAVES} saves in a year: ${versions} versions kept, ${(bytes / 1e6).toFixed(1)} MB; list ${Math.max(...times).toFixed(1)} ms at most; ${perSummary.toFixed(0)} ms a summary; ${memory.toFixed(0)} MB of memory`,
);
rmSync(folder, { recursive: true, force: true });
