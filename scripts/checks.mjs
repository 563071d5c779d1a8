// Everything that is checked: npm test, and beside its units what needs no running program. Says where the time went.
import { readFileSync } from 'node:fs';
import { compilePackages, installPackages } from './installing.mjs';
import { inRoot, start } from './lib.mjs';

const times = [];
const since = (from) => Math.round((Date.now() - from) / 1000);

async function timed(name, ...command) {
  const from = Date.now();
  await start(...command);
  times.push(`${name} ${since(from)} s`);
}
/** Checks of package.json, as npm would run them, without a start of npm for each. */
async function inTurn(names, options = {}) {
  const { scripts } = JSON.parse(readFileSync(inRoot('package.json'), 'utf8'));
  const PATH = `${inRoot('node_modules', '.bin')}:${process.env.PATH}`;
  for (const name of names) await timed(name, 'sh', ['-c', scripts[name]], { env: { PATH }, ...options });
}

/** The tests, once what they need is compiled; what reads sources only goes on meanwhile. */
async function tests(fresh) {
  const from = Date.now();
  if (fresh) await compilePackages();
  times.push(`compile ${since(from)} s`);
  await timed('test', 'npm', ['-s', 'test']);
}

const began = Date.now();
const fresh = await installPackages();
times.push(`install ${since(began)} s`);
// Types first, since the build writes what they read; the rest takes the time that a compiler, a build and tests leave,
// which wait now and then.
const types = inTurn(['types']);
const patiently = (...names) => types.catch(() => undefined).then(() => inTurn(names, { patient: true }));
const ended = await Promise.allSettled([tests(fresh), types, patiently('lint'), patiently('format', 'deps', 'unused')]);
const failures = ended.flatMap((e) => (e.status === 'rejected' ? [e.reason.message] : []));
failures.forEach((failure) => console.error(failure));
console.log(`${times.join(', ')}; in all ${since(began)} s`);
if (failures.length > 0) process.exit(1);
console.log('all checks passed');
