// Takes the pictures in docs/screenshots from the demo data.
import { install } from './installing.mjs';
import { buildApplication, bundle, run } from './lib.mjs';

await install();
await buildApplication();
await bundle('demo/seed.ts', 'seed');
run(process.execPath, [await bundle('tests/support/screenshots.ts', 'screenshots')]);
