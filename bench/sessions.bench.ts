import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { stream } from '../core/kinds/random';
import { Bench } from '../server/bench';
import { logOf } from '../server/benchLog';
import { openDatabase } from '../server/database';
import { FileRow, ReadingRow, SessionRow } from '../server/models';
import { quantile } from './figures';

// A year at the rack: 300 sessions, 20 000 readings and 500 photographs; how soon their list, one of them, and a reading's
// trend are there.

const [SESSIONS, READINGS, PHOTOGRAPHS] = [300, 20_000, 500];
const RUNS = 15;
const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-sessions-'));
const db = await openDatabase(folder);
const body = readFileSync('demo/patches/fog-bank-breathing.fenvo.json', 'utf8');
const random = stream(3);
const picture = Buffer.alloc(400_000, 7);
for (let n = 0; n < SESSIONS; n++) {
  const started = new Date(Date.UTC(2026, 0, 1) + n * 86_400_000);
  const names = { patchId: 'fog', patchName: 'Fog bank breathing', rackId: 'pier', rackName: 'Pier rack' };
  const texts = { body, assignment: '[]', expects: '{}', ticks: '{}', notes: '', simulated: null };
  await SessionRow.create({
    id: `s${n}`,
    patchRevision: 1,
    steps: 22,
    ...names,
    ...texts,
    started,
    lastUsed: started,
    ended: started,
    deletedAt: null,
  });
  const count = Math.round(READINGS / SESSIONS);
  await ReadingRow.bulkCreate(
    Array.from({ length: count }, (_, i) => ({
      sessionId: `s${n}`,
      at: `m${i % 12}.out`,
      quantity: 'high',
      value: 4 + 0.1 * random(),
      unit: 'V',
      plusMinus: null,
      step: null,
      knobs: '[]',
      corrects: null,
      expected: 4,
      expectedPlusMinus: 0.05,
      verdict: random() < 0.1 ? 'wrong' : 'good',
      time: started,
    })),
  );
}
for (let n = 0; n < PHOTOGRAPHS; n++)
  await FileRow.create({
    id: `f${n}`,
    sessionId: `s${n % SESSIONS}`,
    kind: 'photograph',
    name: 'Rack',
    type: 'image/jpeg',
    at: null,
    bytes: picture,
    added: new Date(),
    deletedAt: null,
  });

const bench = new Bench(db);
const asked: readonly (readonly [string, () => Promise<unknown>])[] = [
  ['list of all sessions', () => bench.list(false)],
  ['one session', () => bench.get(`s${Math.floor(SESSIONS * random())}`)],
  ['a trend', () => bench.trend('fog', 'm3.out', 'high')],
  ['the whole log, without pictures', () => logOf({})],
];
console.log(`${SESSIONS} sessions, ${READINGS} readings, ${PHOTOGRAPHS} photographs of 400 kB`);
for (const [name, ask] of asked) {
  const times: number[] = [];
  for (let n = 0; n < RUNS; n++) {
    const began = performance.now();
    await ask();
    times.push(performance.now() - began);
  }
  console.log(`  ${name}: p50 ${quantile(times, 0.5).toFixed(0)} ms, p95 ${quantile(times, 0.95).toFixed(0)} ms`);
}
await db.sequelize.close();
rmSync(folder, { recursive: true, force: true });
