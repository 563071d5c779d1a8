import { parseArgs } from 'node:util';
import { checkDocuments } from '../core/testing/documents';
import { brokenPromiseOf, faultOf } from '../core/testing/check';
import { heavyPatch } from '../core/testing/heavy';
import { randomPatch } from '../core/testing/randomPatch';
import { predict } from '../core/answers/predict';

const { values } = parseArgs({
  options: {
    patches: { type: 'string', default: '100000' },
    documents: { type: 'string', default: '100000' },
    from: { type: 'string', default: '0' },
    promises: { type: 'string', default: '2000' },
    heavy: { type: 'string', default: '28' },
  },
});
const [patches, documents, from] = [values.patches, values.documents, values.from].map(Number) as [
  number,
  number,
  number,
];
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

const promises = Number(values.promises);
for (let seed = from; seed < from + promises; seed++) {
  const broken = brokenPromiseOf(randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 }));
  if (broken === null) continue;
  faults++;
  console.log(`seed ${seed}: ${broken}`);
}
console.log(`cures of ${promises} patches from seed ${from} applied and asked again`);
let slowest = { ms: 0, name: '' };
for (let seed = 0; seed < Number(values.heavy); seed++) {
  const heavy = heavyPatch(seed);
  const began = performance.now();
  predict(heavy);
  const ms = performance.now() - began;
  if (ms > slowest.ms) slowest = { ms, name: heavy.name };
  if (ms <= TOO_SLOW) continue;
  faults++;
  console.log(`${heavy.name}: ${Math.round(ms)} ms`);
}
console.log(`${values.heavy} heavy documents: slowest ${slowest.name}, ${Math.round(slowest.ms)} ms`);
const report = checkDocuments(from, documents);
report.faults.forEach((f) => console.log(f));
console.log(
  `${documents} changed documents: ${report.read} read, ${report.refused} refused, ${report.faults.length} faults, slowest ${report.slowestMs} ms`,
);
process.exitCode = faults + report.faults.length > 0 ? 1 : 0;
