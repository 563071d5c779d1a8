import { dataFolder, openDatabase } from '../server/database';
import { benchReadings, channelLimits, parsePatch, parseRack } from '../core';
import { Bench } from '../server/bench';
import { Patches } from '../server/patches';
import { Racks } from '../server/racks';
import { SetLists } from '../server/setLists';
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
/** The evening that the theatre plays. */
async function seedNight(lists: SetLists): Promise<void> {
  const id = 'the-lamp-keepers-night';
  if (await lists.has(id)) return;
  const night = [
    ['fog-bank-breathing', 6, 'House lights down. The fog comes in before anybody speaks.'],
    ['two-lamps-opposite-ways', 8, 'The lamp room. Both lamps turn from the first line on.'],
    ['tide-gauge-to-three-ends', 7, 'The keeper reads the gauge: the hand on the fader follows her.'],
    ['storm-one-fader-five-ends', 9, 'The storm. Slowly up; the bell ducks the band.'],
    ['fog-bank-breathing', 5, 'Morning. As it began.'],
  ] as const;
  const items = night.map(([patch, minutes, notes]) => ({ patch, variant: '', minutes, notes }));
  await lists.add({ name: 'The Lamp Keeper’s Night', rack: 'pier-rack', items }, id);
}

/** Evenings at a simulated rack: what a log looks like, and something to calibrate from. */
async function seedSessions(bench: Bench): Promise<void> {
  if ((await bench.list(false)).length > 0 || (await bench.list(true)).length > 0) return;
  const simulated = { seed: 7, faults: [], surprise: false };
  for (const patch of ['fog-bank-breathing', 'two-lamps-opposite-ways', 'tide-gauge-to-three-ends']) {
    const session = await bench.open({ patch, rack: 'pier-rack', simulated });
    const rack = parseRack((await new Racks(db).get('pier-rack')).rack);
    const read = parsePatch(session.document);
    if (!read.ok || !rack.ok) continue;
    const channels = channelLimits(read.value, rack.value);
    const readings = benchReadings(read.value, { seed: simulated.seed, channels });
    await bench.addReadings(
      session.id,
      readings.map(({ at, quantity, value }) => ({ at, quantity, value })),
    );
    await bench.change(session.id, { ended: true, notes: 'Rehearsal at the simulated rack.' });
  }
}

const racks = new Racks(db);
for (const { id, document } of demoRacks('demo/racks')) if (!(await racks.has(id))) await racks.create(document, id);
await seedNight(new SetLists(db));
await seedSessions(new Bench(db));
// What the patches list says of each; with --bare it is worked out when first asked for.
if (!process.argv.includes('--bare')) {
  await patches.list(false);
  await patches.summaries.settled();
}
await db.sequelize.close();
console.log(added === 0 ? 'demo patches: all there' : `demo patches: ${added} added`);
