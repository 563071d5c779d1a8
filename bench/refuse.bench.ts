import { parsePatch, printPatch } from '../core';
import { adverse } from '../core/testing/adverse';
import { heavyPatch } from '../core/testing/heavy';

/** How long it takes to refuse a file that is wrong throughout, and to read a valid one of the greatest size. */

function timed(name: string, document: object): void {
  const text = JSON.stringify(document);
  const start = performance.now();
  const result = parsePatch(JSON.parse(text));
  const ms = (performance.now() - start).toFixed(0);
  console.log(`${name}, ${text.length} bytes: ${result.ok ? 'read' : `${result.errors.length} faults`} in ${ms} ms`);
}

for (const [name, make] of Object.entries(adverse)) timed(name, make());
for (let seed = 0; seed < 6; seed++) {
  const patch = heavyPatch(seed);
  timed(patch.name, printPatch(patch));
}
timed('16 gestures of 10 000 points', {
  format: 'fenvo.patch',
  version: 1,
  modules: Array.from({ length: 16 }, (_, i) => ({
    id: `g${i}`,
    kind: 'gesture',
    params: { points: Array.from({ length: 10_000 }, (_, t) => ({ t: t / 100, volts: 5 * Math.sin(t) })) },
  })),
});
