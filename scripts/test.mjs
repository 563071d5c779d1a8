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
const vitest = (...projects) =>
  start(inRoot('node_modules', '.bin', 'vitest'), ['run', ...projects.flatMap((name) => ['--project', name])]);

try {
  await timed('install', installForTests);
  await timed('build', async () => {
    await buildApplication();
    await bundle('cli/main.ts', 'fenvo');
    await bundle('demo/seed.ts', 'seed');
  });
  const ended = await Promise.allSettled([timed('unit', () => vitest('unit', 'alone'))]);
  ended.push(...(await Promise.allSettled([timed('browser', () => vitest('browser'))])));
  for (const { reason } of ended.filter((e) => e.status === 'rejected')) throw reason;
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
console.log(`tests: ${times.join(', ')}`);
