// What the lockfile names, and what the tests need of the system.
import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { findChromium } from './chromium.mjs';
import { inRoot, start } from './lib.mjs';

const modules = inRoot('node_modules');
const lockfile = () => readFileSync(inRoot('package-lock.json'), 'utf8');
const mark = inRoot('node_modules', '.fenvo-installed');
const isInstalled = () => existsSync(mark) && readFileSync(mark, 'utf8') === lockfile();

/**
 * Debian's SQLite, where its headers are, saves two minutes of compiling; else the bundled source is built. What is
 * compiled then only passes calls on: it need not be optimised as far.
 */
const sqliteEnv = () =>
  existsSync('/usr/include/sqlite3.h')
    ? { npm_config_build_from_source: 'true', npm_config_sqlite: '/usr', CXXFLAGS: '-O1' }
    : {};

const QUIET = ['--no-audit', '--no-fund'];
const npm = (args, options = {}) => start('npm', [...args, ...QUIET], { quiet: true, ...options });

/** A lockfile that also says where each package lies, as registries lay them out. */
function locatedLock() {
  const registry = execFileSync('npm', ['config', 'get', 'registry'], { cwd: inRoot(), encoding: 'utf8' }).trim();
  const lock = JSON.parse(lockfile());
  for (const [place, found] of Object.entries(lock.packages)) {
    if (place === '' || found.link) continue;
    const name = found.name ?? place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length);
    found.resolved ??= `${registry.replace(/\/$/, '')}/${name}/-/${name.split('/').at(-1)}-${found.version}.tgz`;
  }
  return JSON.stringify(lock);
}

/**
 * Installs from a lockfile that says where packages lie: npm reads the whole history of each otherwise, a third of its
 * work. The one that is kept names no registry, so this is done beside it.
 *
 * @throws Error where npm does; a registry may be laid out otherwise.
 */
async function installLocated() {
  const beside = inRoot('dist', 'install');
  rmSync(beside, { recursive: true, force: true });
  mkdirSync(beside, { recursive: true });
  for (const file of ['package.json', '.npmrc']) copyFileSync(inRoot(file), `${beside}/${file}`);
  writeFileSync(`${beside}/package-lock.json`, locatedLock());
  try {
    await npm(['ci', '--ignore-scripts'], { cwd: beside });
    rmSync(modules, { recursive: true, force: true });
    renameSync(`${beside}/node_modules`, modules);
  } finally {
    rmSync(beside, { recursive: true, force: true });
  }
}

/** The packages of the lockfile; what has to be compiled is not yet. */
async function installLocked() {
  try {
    await installLocated();
  } catch (error) {
    console.error(`${error.message}; installing as the lockfile stands`);
    await npm(['ci', '--ignore-scripts']);
  }
}

/** Chromium for the browser tests and SQLite's headers, in one call, where they are missing and apt is there. */
async function installSystem() {
  const missing = [
    ...(findChromium() ? [] : ['chromium-headless-shell']),
    ...(existsSync('/usr/include/sqlite3.h') || isInstalled() ? [] : ['libsqlite3-dev']),
  ];
  if (missing.length === 0 || !existsSync('/usr/bin/apt-get')) return;
  const admin = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => start('env', ['DEBIAN_FRONTEND=noninteractive', ...admin, 'apt-get', ...args]);
  await apt('update', '-q');
  await apt('install', '-y', '-q', '--no-install-recommends', ...missing);
}

/**
 * Packages of the system and of the lockfile, beside each other; what has to be compiled is not yet.
 *
 * @returns whether they were missing.
 */
export async function installPackages() {
  const fresh = !isInstalled();
  await Promise.all([installSystem(), fresh ? installLocked() : undefined]);
  return fresh;
}

/** Compiles what has to be, which ends an install. */
export async function compilePackages() {
  await npm(['rebuild', 'sqlite3'], { env: sqliteEnv() });
  writeFileSync(mark, lockfile());
}

/** Installs what the lockfile names, if that was not done since it last changed. */
export async function install() {
  if (isInstalled()) return;
  await installLocked();
  await compilePackages();
}

/** All that the tests need. */
export async function installForTests() {
  if (await installPackages()) await compilePackages();
}
