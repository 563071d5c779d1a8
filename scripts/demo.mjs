// Installs, builds, fills the demo data, starts the application, and prints its address once it answers.
import { existsSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { install } from './installing.mjs';
import { answers, buildApplication, bundle, inRoot, root, run, startChild } from './lib.mjs';
import { serverFlags } from './serverFlags.mjs';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '3210' },
    data: { type: 'string' },
    host: { type: 'string', default: '127.0.0.1' },
    lan: { type: 'boolean', default: false },
  },
});
const port = Number(values.port);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`--port must be a whole number from 1 to 65535, got ${values.port}`);
  process.exit(2);
}
const data = path.resolve(root, values.data ?? process.env.FENVO_DATA ?? 'data');

await install();
await buildApplication();
const seed = await bundle('demo/seed.ts', 'seed');
const fill = () => run(process.execPath, [seed], { env: { FENVO_DATA: data } });
// A new database is made before the server opens it; one that is there is looked through while the server starts.
const fresh = !existsSync(path.join(data, 'fenvo.sqlite'));
if (fresh) fill();
const serve = [...serverFlags, inRoot('dist', 'serve.mjs'), '--host', values.host, '--port', String(port)];
if (values.lan) serve.push('--lan');
startChild(process.execPath, serve, {
  NODE_ENV: 'production',
  FENVO_DATA: data,
  FENVO_PORT: String(port),
});
if (!fresh) fill();
const url = `http://${values.host === '0.0.0.0' ? '127.0.0.1' : values.host}:${port}`;
if (await answers(`${url}/api/health`, 60)) console.log(`\nFenvo answers at ${url}\n`);
else {
  console.error('Fenvo did not answer within 60 s');
  process.exit(1);
}
