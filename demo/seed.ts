import { dataFolder, openDatabase } from '../server/database';
import { Patches } from '../server/patches';
import { Racks } from '../server/racks';
import { demoPatches, demoRacks } from './patches';

/** Adds the demo patches that are missing; one that is there, or was deleted, is left as it is. */
const db = await openDatabase(dataFolder());
const patches = new Patches(db);
let added = 0;
for (const { id, document } of demoPatches('demo/patches').reverse()) {
  if (await patches.has(id)) continue;
  await patches.create(document, ['demo', 'theatre'], id);
  added++;
}
const racks = new Racks(db);
for (const { id, document } of demoRacks('demo/racks')) if (!(await racks.has(id))) await racks.create(document, id);
// What the patches list says of each; with --bare it is worked out when first asked for.
if (!process.argv.includes('--bare')) {
  await patches.list(false);
  await patches.summaries.settled();
}
await db.sequelize.close();
console.log(added === 0 ? 'demo patches: all there' : `demo patches: ${added} added`);
