import { parseArgs } from 'node:util';
import { checkDocuments } from '../core/testing/documents';
import { brokenPromiseOf, faultOf } from '../core/testing/check';
import { heavyPatch } from '../core/testing/heavy';
import { promisePatch, randomPatch } from '../core/testing/randomPatch';
import { predict } from '../core/answers/predict';

/** The promises of fixes alone: --promises, over so many patches where --patches does not say. */
const PROMISES = 5000;

const { values } = parseArgs({
  options: {
    patches: { type: 'string' },
    documents: { type: 'string', default: '100000' },
    from: { type: 'string', default: '0' },
    promises: { type: 'boolean', default: false },
    heavy: { type: 'string', default: '28' },
  },
});
const only = values.promises;
const from = Number(values.from);
const patches = only ? 0 : Number(values.patches ?? 100_000);
const promises = only ? Number(values.patches ?? PROMISES) : 2000;
const documents = only ? 0 : Number(values.documents);
const heavyOnes = only ? 0 : Number(values.heavy);
let faults = 0;
const start = Date.now();
for (let seed = from; seed < from + patches; seed++) {
  let fault: string | null;
  try {
    fault = faultOf(randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 }));
  } catch (error) {
    fault = error instanceof Error ? (error.stack ?? error.message) : String(error);
  }
  if (fault === null) continue;
  faults++;
  console.log(`seed ${seed}: ${fault}`);
}
console.log(
  `${patches} patches from seed ${from}: ${faults} faults, ${((Date.now() - start) / Math.max(1, patches)).toFixed(2)} ms each`,
);
/** No document within the limits takes longer than this, milliseconds. */
const TOO_SLOW = 10_000;

for (let seed = from; seed < from + promises; seed++) {
  const broken = brokenPromiseOf(promisePatch(seed));
  if (broken === null) continue;
  faults++;
  console.log(`seed ${seed}: ${broken}`);
}
console.log(`cures of ${promises} patches from seed ${from} applied and asked again`);
let slowest = { ms: 0, name: '' };
for (let seed = 0; seed < heavyOnes; seed++) {
  const heavy = heavyPatch(seed);
  const began = performance.now();
  predict(heavy);
  const ms = performance.now() - began;
  if (ms > slowest.ms) slowest = { ms, name: heavy.name };
  if (ms <= TOO_SLOW) continue;
  faults++;
  console.log(`${heavy.name}: ${Math.round(ms)} ms`);
}
console.log(`${heavyOnes} heavy documents: slowest ${slowest.name}, ${Math.round(slowest.ms)} ms`);
const report = checkDocuments(from, documents);
report.faults.forEach((f) => console.log(f));
console.log(
  `${documents} changed documents: ${report.read} read, ${report.refused} refused, ${report.faults.length} faults, slowest ${report.slowestMs} ms`,
);
process.exitCode = faults + report.faults.length > 0 ? 1 : 0;
