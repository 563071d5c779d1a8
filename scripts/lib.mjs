import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { constants, setPriority } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
export const inRoot = (...parts) => path.join(root, ...parts);

/** Runs a command to its end. */
export function run(command, args, { env = {} } = {}) {
  const done = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  if (done.error) throw done.error;
  if (done.status !== 0) {
    console.error(`${command} ${args.join(' ')} failed with ${done.status ?? done.signal}`);
    process.exit(done.status ?? 1);
  }
}

const stamp = (file) => (existsSync(file) ? statSync(file).mtimeMs : 0);

/**
 * Starts a command; its promise ends with it, and fails as it does. Its output goes to standard error where `quiet`
 * stands, so that answers stay clean; `patient`, it takes what time others leave.
 */
export function start(command, args, { env = {}, cwd = root, quiet = false, patient = false } = {}) {
  const child = spawn(command, args, {
    cwd,
    stdio: ['ignore', quiet ? process.stderr : 'inherit', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  if (patient && child.pid) setPriority(child.pid, constants.priority.PRIORITY_LOW);
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', (code, signal) =>
      code === 0 ? resolve() : reject(new Error(`${command} ${args.join(' ')} ended with ${code ?? signal}`)),
    );
  });
}

/** The newest change below the given files and folders. */
function newest(parts) {
  let latest = 0;
  const visit = (file) => {
    const info = statSync(file);
    if (info.isDirectory()) for (const name of readdirSync(file)) visit(path.join(file, name));
    else latest = Math.max(latest, info.mtimeMs);
  };
  for (const part of parts) if (existsSync(inRoot(part))) visit(inRoot(part));
  return latest;
}

const sources = [
  'app',
  'ui',
  'core',
  'paper',
  'server',
  'wire',
  'workers',
  'next.config.mjs',
  'proxy.ts',
  'tsconfig.json',
  'package-lock.json',
];

/** What plays, or listens, on the browser's sound thread: one file each, which the page fetches by its name. */
export async function bundleWorklets() {
  for (const name of ['live', 'capture']) await bundleWorklet(name);
}

async function bundleWorklet(name) {
  const out = inRoot('public', `${name}.worklet.js`);
  if (stamp(out) > newest(['core', 'wire', 'workers', 'scripts', 'package-lock.json'])) return;
  mkdirSync(inRoot('public'), { recursive: true });
  const { build } = createRequire(import.meta.url)('esbuild');
  await build({
    entryPoints: [inRoot('workers', `${name}.worklet.ts`)],
    outfile: out,
    bundle: true,
    platform: 'browser',
    format: 'esm',
    target: 'es2022',
    minify: true,
    logLevel: 'warning',
  });
}

/** Builds the application if a source is newer than the last build. */
export async function buildApplication() {
  // What the server works out beside its own thread.
  await bundle('server/beside/worker.ts', 'server-worker');
  await bundle('server/serve.ts', 'serve');
  await bundleWorklets();
  const done = inRoot('.next', '.fenvo-built');
  if (stamp(done) > newest(sources)) return;
  run(process.execPath, [inRoot('node_modules', 'next', 'dist', 'bin', 'next'), 'build']);
  writeFileSync(done, new Date().toISOString());
}

/** Builds what tests run on: the application, and what they call from Node. */
export async function buildForTests() {
  await buildApplication();
  await bundle('cli/main.ts', 'fenvo');
  await bundle('demo/seed.ts', 'seed');
  await bundle('core/index.ts', 'core');
}

/** The tests that failed in the files of a report, with what was said first; a file that failed as a whole has no test. */
export function failuresOf(files) {
  const first = (text) => (text ?? '').split('\n').slice(0, 3).join(' | ');
  return files.flatMap(({ name, status, message, assertionResults }) => {
    const at = path.relative(root, name);
    const tests = assertionResults.filter((t) => t.status === 'failed');
    if (tests.length === 0) return status === 'failed' ? [{ at, test: '', said: first(message) }] : [];
    return tests.map((t) => ({ at, test: t.fullName, said: first(t.failureMessages[0]) }));
  });
}

/** Bundles a TypeScript entry for Node, if a source is newer than the last bundle; answers its path. */
export async function bundle(entry, name) {
  const out = inRoot('dist', `${name}.mjs`);
  if (stamp(out) > newest(['core', 'paper', 'cli', 'server', 'demo', 'bench', 'tests', 'scripts', 'package-lock.json']))
    return out;
  mkdirSync(inRoot('dist'), { recursive: true });
  const { build } = createRequire(import.meta.url)('esbuild');
  await build({
    entryPoints: [inRoot(entry)],
    outfile: out,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    // Puts constants where they are used: as variables of a bundle they would be loaded anew for each sample.
    minifySyntax: true,
    external: ['next', 'sequelize', 'sqlite3', 'puppeteer-core', 'vitest', 'pdfmake', 'esbuild'],
    // Under a name that no package takes for itself.
    banner: {
      js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
    },
    logLevel: 'warning',
  });
  return out;
}

/** Starts a program and passes the signals that end this one on to it. */
export function startChild(command, args, env = {}) {
  const child = spawn(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
  return child;
}

/** Waits until the address answers. */
export async function answers(url, seconds) {
  for (const end = Date.now() + seconds * 1000; Date.now() < end;) {
    try {
      if ((await fetch(url)).ok) return true;
    } catch {
      // Not yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return false;
}
