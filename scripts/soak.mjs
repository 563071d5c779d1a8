// Runs the whole suite again and again beside busy loops, as on a slow and shared machine, and says at the end what failed
// and how often: npm run soak -- [--runs 20] [--busy 3] [files ...]. Each run begins its properties from a seed of its own.
import { spawn, spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { installForTests } from './installing.mjs';
import { buildForTests, failuresOf, inRoot, root } from './lib.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string', default: '20' }, busy: { type: 'string', default: '3' } },
});
const REPORT = inRoot('dist', 'soak.json');

await installForTests();
await buildForTests();
const loops = Array.from({ length: Number(values.busy) }, () => spawn(process.execPath, ['-e', 'for (;;) {}']));
const stop = () => loops.forEach((loop) => loop.kill());
process.on('exit', stop);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(1));

const failed = new Map();
for (let run = 1; run <= Number(values.runs); run++) {
  const began = Date.now();
  // A run that ends without a report is not told by the one before it.
  rmSync(REPORT, { force: true });
  const args = ['run', ...positionals, '--reporter=json', `--outputFile.json=${REPORT}`];
  spawnSync(inRoot('node_modules', '.bin', 'vitest'), args, {
    cwd: root,
    env: { ...process.env, FENVO_SEED: String(run) },
  });
  const { testResults, numPassedTests, numTotalTests } = JSON.parse(readFileSync(REPORT, 'utf8'));
  const seconds = Math.round((Date.now() - began) / 1000);
  console.log(`run ${run}: ${numPassedTests} of ${numTotalTests} passed in ${seconds} s`);
  for (const { at, test, said } of failuresOf(testResults)) {
    const name = `${at}: ${test || said}`;
    failed.set(name, (failed.get(name) ?? 0) + 1);
    console.log(`  failed: ${name}: ${said.split('\n')[0]}`);
  }
}
for (const [test, times] of failed) console.log(`failed ${times} times: ${test}`);
process.exitCode = failed.size > 0 ? 1 : 0;
