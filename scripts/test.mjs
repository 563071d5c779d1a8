// Installs, builds, then unit tests and browser tests; installs Chromium where it is missing. Says where the time went,
// and at the very end which tests failed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { installForTests } from './installing.mjs';
import { buildApplication, bundle, inRoot, root, start } from './lib.mjs';

const times = [];
async function timed(name, work) {
  const began = Date.now();
  try {
    await work();
  } finally {
    times.push(`${name} ${Math.round((Date.now() - began) / 1000)} s`);
  }
}

/** What the properties begin from: the same for the same sources, so that what passes once passes again. */
function seedOfSources() {
  const tree = spawnSync('git', ['rev-parse', 'HEAD^{tree}'], { cwd: root, encoding: 'utf8' });
  return tree.status === 0 ? String(Number.parseInt(tree.stdout.slice(0, 7), 16)) : '1';
}
const FENVO_SEED = process.env.FENVO_SEED ?? seedOfSources();

const reportOf = (name) => inRoot('dist', `tests-${name}.json`);
const vitest = (name, ...projects) => {
  rmSync(reportOf(name), { force: true });
  return start(
    inRoot('node_modules', '.bin', 'vitest'),
    [
      'run',
      ...projects.flatMap((project) => ['--project', project]),
      ...['--reporter=default', '--reporter=json', `--outputFile.json=${reportOf(name)}`],
    ],
    { env: { FENVO_SEED } },
  );
};

/** The tests that failed, a line each, with what was said first. */
function failed(name) {
  if (!existsSync(reportOf(name))) return [];
  const { testResults } = JSON.parse(readFileSync(reportOf(name), 'utf8'));
  const first = (text) => (text ?? '').split('\n').slice(0, 3).join(' | ');
  return testResults.flatMap(({ name: file, status, message, assertionResults }) => {
    const tests = assertionResults.filter((t) => t.status === 'failed');
    const at = path.relative(root, file);
    if (tests.length === 0 && status === 'failed') return [`failed: ${at}: ${first(message)}`];
    return tests.map((t) => `failed: ${at}: ${t.fullName}: ${first(t.failureMessages[0])}`);
  });
}

try {
  await timed('install', installForTests);
  await timed('build', async () => {
    await buildApplication();
    await bundle('cli/main.ts', 'fenvo');
    await bundle('demo/seed.ts', 'seed');
    await bundle('core/index.ts', 'core');
  });
  const ended = await Promise.allSettled([timed('unit', () => vitest('unit', 'unit', 'alone'))]);
  ended.push(...(await Promise.allSettled([timed('browser', () => vitest('browser', 'browser'))])));
  for (const { reason } of ended.filter((e) => e.status === 'rejected')) throw reason;
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
for (const line of ['unit', 'browser'].flatMap(failed)) console.error(line);
console.log(`tests: ${times.join(', ')}; properties from seed ${FENVO_SEED}`);
