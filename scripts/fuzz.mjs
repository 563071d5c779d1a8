// Random patches and mutated documents, as many as told: npm run fuzz -- --patches 1000000 --from 0 --documents 100000;
// the promises of fixes alone: npm run fuzz -- --promises [--patches 5000]
import { install } from './installing.mjs';
import { bundle, run } from './lib.mjs';

await install();
run(process.execPath, [await bundle('bench/fuzz.ts', 'fuzz'), ...process.argv.slice(2)]);
