// Compares the core with a general circuit simulator, which is installed where it is missing, and with closed forms.
import { spawnSync } from 'node:child_process';
import { install } from './installing.mjs';
import { bundle, inRoot, run } from './lib.mjs';

await install();
if (spawnSync('ngspice', ['--version']).error) run('apt-get', ['install', '-y', '-q', 'ngspice']);
run(process.execPath, [await bundle('bench/verify/verify.ts', 'verify')]);
run(process.execPath, [
  inRoot('node_modules', '.bin', 'prettier'),
  '--log-level',
  'warn',
  '--write',
  'docs/figures.md',
]);
