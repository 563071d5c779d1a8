// Installs, builds, then unit tests and browser tests; installs Chromium where it is missing. Says where the time went,
// and at the very end which tests failed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { installForTests } from './installing.mjs';
import { buildForTests, failuresOf, inRoot, root, start } from './lib.mjs';

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

const REPORT = inRoot('dist', 'tests.json');
/** Units, then browser tests in the same run: a worker that is done with the first goes on with the second. */
function vitest() {
  rmSync(REPORT, { force: true });
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${REPORT}`];
  return start(inRoot('node_modules', '.bin', 'vitest'), ['run', ...reporters], { env: { FENVO_SEED } });
}

const isBrowser = ({ name }) => name.startsWith(inRoot('tests'));
/** How long the files of a kind took from the first to the last, as it is said at the end. */
function spanOf(name, files) {
  const [from, to] = [Math.min(...files.map((f) => f.startTime)), Math.max(...files.map((f) => f.endTime))];
  return files.length === 0 ? [] : [`${name} ${Math.round((to - from) / 1000)} s`];
}

try {
  await timed('install', installForTests);
  await timed('build', buildForTests);
  await timed('tests', vitest);
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
const files = existsSync(REPORT) ? JSON.parse(readFileSync(REPORT, 'utf8')).testResults : [];
for (const { at, test, said } of failuresOf(files)) console.error(`failed: ${at}: ${test ? `${test}: ` : ''}${said}`);
const [units, others] = [files.filter((f) => !isBrowser(f)), files.filter(isBrowser)];
const spans = [...spanOf('unit', units), ...spanOf('browser', others)];
console.log(`tests: ${[...times, ...spans].join(', ')}; properties from seed ${FENVO_SEED}`);
