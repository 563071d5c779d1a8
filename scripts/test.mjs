// Installs, builds, then unit tests and browser tests; installs Chromium where it is missing. Says where the time went,
// and at the very end which tests failed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { installForTests } from './installing.mjs';
import { buildForTests, inRoot, root, start } from './lib.mjs';

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
/** Units, then browser tests in the same run: who has done with the ones goes on with the others. */
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

/** The tests that failed, a line each, with what was said first. */
function failed(files) {
  const first = (text) => (text ?? '').split('\n').slice(0, 3).join(' | ');
  return files.flatMap(({ name: file, status, message, assertionResults }) => {
    const tests = assertionResults.filter((t) => t.status === 'failed');
    const at = path.relative(root, file);
    if (tests.length === 0 && status === 'failed') return [`failed: ${at}: ${first(message)}`];
    return tests.map((t) => `failed: ${at}: ${t.fullName}: ${first(t.failureMessages[0])}`);
  });
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
for (const line of failed(files)) console.error(line);
const [units, others] = [files.filter((f) => !isBrowser(f)), files.filter(isBrowser)];
const spans = [...spanOf('unit', units), ...spanOf('browser', others)];
console.log(`tests: ${[...times, ...spans].join(', ')}; properties from seed ${FENVO_SEED}`);
