// Runs the measurements named, or all: node scripts/bench.mjs [frames ...]
import { readdirSync } from 'node:fs';
import { install } from './installing.mjs';
import { buildApplication, bundle, inRoot, run } from './lib.mjs';

/** Those that measure the built application in a browser. */
const NEED_APPLICATION = ['dropouts', 'frames', 'listening', 'patches', 'starts'];

await install();
const all = readdirSync(inRoot('bench'))
  .filter((name) => name.endsWith('.bench.ts'))
  .map((name) => name.slice(0, -'.bench.ts'.length));
const wanted = process.argv.slice(2).length > 0 ? process.argv.slice(2) : all;
for (const name of wanted) {
  if (NEED_APPLICATION.includes(name)) {
    await buildApplication();
    await bundle('demo/seed.ts', 'seed');
  }
  console.log(`\n== ${name}`);
  run(process.execPath, [await bundle(`bench/${name}.bench.ts`, `bench-${name}`)]);
}
