import { demoPatches } from '../demo/patches';
import { predict } from '../core/solve/cured';
import { parsePatch } from '../core/document/parse';
import { recipes } from '../core/recipes';
import { randomPatch } from '../core/testing/randomPatch';

// How often each issue stands in random patches, and which stand in the demo's and the recipes'. FENVO_PATCHES tells how
// many random ones; 20 000 by default.

const PATCHES = Number(process.env.FENVO_PATCHES ?? 20_000);

const counts = new Map<string, number>();
const began = performance.now();
for (let seed = 0; seed < PATCHES; seed++) {
  const patch = randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 });
  for (const { code, severity } of predict(patch, { cures: false }).findings) {
    const key = `${code} ${severity}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
}
const seconds = (performance.now() - began) / 1000;
console.log(`issues in ${PATCHES} random patches, ${seconds.toFixed(0)} s`);
for (const [key, count] of [...counts].sort(([a], [b]) => (a < b ? -1 : 1))) console.log(`  ${key}: ${count}`);

/** Dismissed ones too: what a rule itself should know is meant needs no dismissal. */
function tell(id: string, document: unknown): void {
  const parsed = parsePatch(document);
  if (!parsed.ok) throw new Error(`${id} is no patch`);
  const found = predict({ ...parsed.value, dismissed: [] }).findings.map(
    (f) => `${f.code} (${f.severity}) at ${f.at}${f.cure ? `: ${f.cure.label}` : ''}`,
  );
  console.log(`  ${id}: ${found.length === 0 ? 'none' : found.join('; ')}`);
}
console.log('issues of the demo’s patches');
for (const { id, document } of demoPatches('demo/patches')) tell(id, document);
console.log('issues of the recipes');
for (const { id, document } of recipes) tell(id, document);
