// Random patches, edits, live runs, fixes and documents, as many as told: npm run fuzz -- --patches 1000000 --from 0;
// one kind of them alone: npm run fuzz -- --only edits,live --edits 100000 --live 20000; --keep adds them to docs/figures.md
import { install } from './installing.mjs';
import { bundle, run } from './lib.mjs';

await install();
run(process.execPath, [await bundle('bench/fuzz.ts', 'fuzz'), ...process.argv.slice(2)]);
