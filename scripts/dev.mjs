import { install } from './installing.mjs';
import { bundle, bundleWorklet, inRoot, startChild } from './lib.mjs';

await install();
await bundle('server/beside/worker.ts', 'server-worker');
await bundleWorklet();
startChild(process.execPath, [
  inRoot('node_modules', 'next', 'dist', 'bin', 'next'),
  'dev',
  '-H',
  '127.0.0.1',
  '-p',
  '3210',
]);
