// Installs, builds, then unit tests and browser tests; installs Chromium where it is missing.
import { existsSync } from 'node:fs';
import { buildApplication, bundle, inRoot, install, run } from './lib.mjs';

function installChromium() {
  if (existsSync('/usr/bin/chromium') || process.env.FENVO_CHROMIUM) return;
  const admin = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => run('env', ['DEBIAN_FRONTEND=noninteractive', ...admin, 'apt-get', ...args]);
  apt('update', '-q');
  apt('install', '-y', '-q', '--no-install-recommends', 'chromium');
}

install();
installChromium();
await buildApplication();
await bundle('cli/main.ts', 'fenvo');
await bundle('demo/seed.ts', 'seed');
run(inRoot('node_modules', '.bin', 'vitest'), ['run']);
