import { build } from 'esbuild';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { launchBrowser } from '../tests/support/browser';
import type { compared } from './page/offline';

/** Fenvo's live engine beside the browser's own offline audio graph on the same chain, both in headless Chromium. */

declare global {
  interface Window {
    readonly offline: { readonly compared: typeof compared };
  }
}

const SECONDS = 60;
const root = process.cwd();
const { outputFiles } = await build({
  entryPoints: [path.join(root, 'bench/page/offline.ts')],
  bundle: true,
  write: false,
  format: 'iife',
  globalName: 'offline',
  target: 'es2022',
  minifySyntax: true,
  alias: { '@': root },
  logLevel: 'warning',
});
const script = outputFiles[0]?.text ?? '';
// A page of its own on this machine: sound is for such alone.
const server = createServer((request, response) => {
  const isScript = request.url === '/offline.js';
  response.setHeader('Content-Type', isScript ? 'text/javascript' : 'text/html');
  response.end(isScript ? script : '<!doctype html><script src="/offline.js"></script>');
});
await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
const { browser, close } = await launchBrowser();
const page = await browser.newPage();
await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
for (const groups of [1, 6, 12]) {
  const f = await page.evaluate((g, s) => window.offline.compared(g, s), groups, SECONDS);
  const speed = (ms: number): string => `${((f.seconds * 48) / ms).toFixed(2)} million samples/s`;
  console.log(
    `${f.stages} stages, ${f.seconds} s: apart at most ${f.apart.toExponential(1)} V; ` +
      `engine ${speed(f.engineMs)} (${((f.seconds * 1000) / f.engineMs).toFixed(0)} times real time), ` +
      `browser's graph ${speed(f.browserMs)} (${((f.seconds * 1000) / f.browserMs).toFixed(0)} times)`,
  );
}
await close();
server.close();
