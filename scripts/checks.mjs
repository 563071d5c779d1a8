// Everything that is checked: npm test, and beside its units what needs no running program. Says where the time went.
import { installForTests, start } from './lib.mjs';

const times = [];
async function timed(name) {
  const began = Date.now();
  await start('npm', ['run', '-s', name]);
  times.push(`${name} ${Math.round((Date.now() - began) / 1000)} s`);
}
async function inTurn(names) {
  for (const name of names) await timed(name);
}

const began = Date.now();
await installForTests();
const ended = await Promise.allSettled([timed('test'), inTurn(['format', 'types', 'lint', 'deps', 'unused'])]);
const failures = ended.flatMap((e) => (e.status === 'rejected' ? [e.reason.message] : []));
failures.forEach((failure) => console.error(failure));
console.log(`${times.join(', ')}; in all ${Math.round((Date.now() - began) / 1000)} s`);
if (failures.length > 0) process.exit(1);
console.log('all checks passed');
