// Kills the server again and again, and sends it what no page would: node scripts/crash.mjs --rounds 200 --requests 20000
import { install } from './installing.mjs';
import { buildApplication, bundle, run } from './lib.mjs';

await install();
await buildApplication();
await bundle('demo/seed.ts', 'seed');
run(process.execPath, [await bundle('tests/support/crashes.ts', 'crashes'), ...process.argv.slice(2)]);
