import { parseArgs } from 'node:util';
import { predict } from '../core/answers/predict';
import { brokenPromiseOf } from '../core/testing/check';
import { checkDocuments } from '../core/testing/documents';
import { heavyPatch } from '../core/testing/heavy';
import { promisePatch } from '../core/testing/randomPatch';
import { patchFault } from '../core/testing/seeds';
import { keptFault, liveFault, undoFault } from '../core/testing/sequences';
import { claimOf, keepRuns } from './longRuns';
import type { Claim, LongRun } from './longRuns';

/** Each claim over as many cases as told: --patches 1000000 --edits 100000 --live 20000 --only patches,live --from 0 */
const { values } = parseArgs({
  options: {
    from: { type: 'string', default: '0' },
    only: { type: 'string' },
    patches: { type: 'string', default: '100000' },
    edits: { type: 'string', default: '10000' },
    live: { type: 'string', default: '2000' },
    promises: { type: 'string', default: '2000' },
    documents: { type: 'string', default: '100000' },
    heavy: { type: 'string', default: '28' },
    /** Adds what was found to the runs that docs/figures.md sums. */
    keep: { type: 'boolean', default: false },
    /** Ends each part after so many seconds, with what it came to. */
    seconds: { type: 'string', default: '1000000' },
  },
});
type Part = Exclude<Claim, 'kills' | 'hostile' | 'mixed'>;
const from = Number(values.from);
const wanted = (part: Part): number =>
  values.only && !values.only.split(',').includes(part) ? 0 : Number(values[part]);

let faults = 0;
const runs: Omit<LongRun, 'day' | 'commit'>[] = [];
function told(claim: Part, cases: number, found: number, ms: number, more = ''): void {
  faults += found;
  const each = (ms / Math.max(1, cases)).toFixed(2);
  console.log(`${claimOf(claim)}: ${cases} from seed ${from}, ${found} faults, ${each} ms each${more}`);
  runs.push({ claim, from, cases, faults: found });
}

/** Looks at every seed of a part; what breaks is a fault like any other. */
function part(name: Part, fault: (seed: number) => string | null): void {
  const count = wanted(name);
  if (count === 0) return;
  const began = Date.now();
  let [found, done] = [0, 0];
  for (; done < count && Date.now() - began < 1000 * Number(values.seconds); done++) {
    let said: string | null;
    try {
      said = fault(from + done);
    } catch (error) {
      said = error instanceof Error ? (error.stack ?? error.message) : String(error);
    }
    if (said === null) continue;
    found++;
    console.log(`${name}, seed ${from + done}: ${said}`);
  }
  told(name, done, found, Date.now() - began);
}

part('patches', patchFault);
part('edits', (seed) => undoFault(seed, 8) ?? keptFault(seed, 8));
part('live', (seed) => liveFault(seed, 5));
part('promises', (seed) => brokenPromiseOf(promisePatch(seed)));

/** No document within the limits takes longer than this, milliseconds. */
const TOO_SLOW = 10_000;
let slowest = { ms: 0, name: '' };
part('heavy', (seed) => {
  const heavy = heavyPatch(seed);
  const began = performance.now();
  predict(heavy);
  const ms = performance.now() - began;
  if (ms > slowest.ms) slowest = { ms, name: heavy.name };
  return ms > TOO_SLOW ? `${heavy.name}: ${Math.round(ms)} ms` : null;
});
if (slowest.ms > 0) console.log(`slowest of them: ${slowest.name}, ${Math.round(slowest.ms)} ms`);

if (wanted('documents') > 0) {
  const began = Date.now();
  const report = checkDocuments(from, wanted('documents'));
  report.faults.forEach((f) => console.log(f));
  const counts = `; ${report.read} read, ${report.refused} refused, slowest ${report.slowestMs} ms`;
  told('documents', wanted('documents'), report.faults.length, Date.now() - began, counts);
}
if (values.keep) keepRuns(runs);
process.exitCode = faults > 0 ? 1 : 0;
