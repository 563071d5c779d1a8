// Installs, builds and serves a data folder, and prints the address once it answers.
import { existsSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { install } from './installing.mjs';
import { answers, buildApplication, inRoot, root, startChild } from './lib.mjs';
import { serverFlags } from './serverFlags.mjs';

/** The options of a server; a port that is none ends the program. */
function optionsOf() {
  const { values } = parseArgs({
    options: {
      port: { type: 'string', default: '3210' },
      data: { type: 'string' },
      host: { type: 'string', default: '127.0.0.1' },
      lan: { type: 'boolean', default: false },
    },
  });
  const port = Number(values.port);
  if (Number.isInteger(port) && port >= 1 && port <= 65535) return { ...values, port };
  console.error(`--port must be a whole number from 1 to 65535, got ${values.port}`);
  process.exit(2);
}

/**
 * Serves a folder until it is ended.
 *
 * @param usual the folder where none is named. @param prepare what is made before the server opens it, and what is done
 * while it starts; both are told the folder, and whether it is new.
 */
export async function serve(usual, { before = async () => {}, beside = async () => {} } = {}) {
  const { port, host, lan, data: named } = optionsOf();
  const data = path.resolve(root, named ?? process.env.FENVO_DATA ?? usual);
  await install();
  await buildApplication();
  const fresh = !existsSync(path.join(data, 'fenvo.sqlite'));
  await before({ data, fresh });
  const args = [...serverFlags, inRoot('dist', 'serve.mjs'), '--host', host, '--port', String(port)];
  if (lan) args.push('--lan');
  startChild(process.execPath, args, { NODE_ENV: 'production', FENVO_DATA: data, FENVO_PORT: String(port) });
  await beside({ data, fresh });
  const url = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`;
  if (!(await answers(`${url}/api/health`, 60))) {
    console.error('Fenvo did not answer within 60 s');
    process.exit(1);
  }
  console.log(
    `\nFenvo answers at ${url}\n${fresh ? 'Your library is new. It is kept in' : 'Its library is in'} ${data}\n`,
  );
}
