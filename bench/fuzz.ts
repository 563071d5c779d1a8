import { parseArgs } from 'node:util';
import { checkDocuments } from '../core/fuzz/documents';
import { faultOf } from '../core/fuzz/check';
import { randomPatch } from '../core/fuzz/randomPatch';

const { values } = parseArgs({
  options: {
    patches: { type: 'string', default: '100000' },
    documents: { type: 'string', default: '100000' },
    from: { type: 'string', default: '0' },
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
const report = checkDocuments(from, documents);
report.faults.forEach((f) => console.log(f));
console.log(
  `${documents} changed documents: ${report.read} read, ${report.refused} refused, ${report.faults.length} faults, slowest ${report.slowestMs} ms`,
);
process.exitCode = faults + report.faults.length > 0 ? 1 : 0;
