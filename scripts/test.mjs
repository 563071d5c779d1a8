// Installs, builds, then unit tests and browser tests; installs Chromium where it is missing. Says where the time went.
import { buildApplication, bundle, inRoot, installForTests, start } from './lib.mjs';

const times = [];
async function timed(name, work) {
  const began = Date.now();
  try {
    await work();
  } finally {
    times.push(`${name} ${Math.round((Date.now() - began) / 1000)} s`);
  }
}
const vitest = (project) => start(inRoot('node_modules', '.bin', 'vitest'), ['run', '--project', project]);

try {
  await timed('install', installForTests);
  await timed('build', async () => {
    await buildApplication();
    await bundle('cli/main.ts', 'fenvo');
    await bundle('demo/seed.ts', 'seed');
  });
  await timed('unit', () => vitest('unit'));
  await timed('browser', () => vitest('browser'));
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
console.log(`tests: ${times.join(', ')}`);
