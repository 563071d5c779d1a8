// Takes the pictures in docs/screenshots from the demo data.
import { buildApplication, bundle, install, run } from './lib.mjs';

install();
await buildApplication();
await bundle('demo/seed.ts', 'seed');
run(process.execPath, [await bundle('tests/support/screenshots.ts', 'screenshots')]);
