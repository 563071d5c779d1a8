import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import next from 'next';
import { parseArgs } from 'node:util';
import { passing, refuseNewer } from './backup';
import { dataFolder } from './database';
import { lockFolder, lockHolds } from './folderLock';
import { securityHeaders } from './headers';
import { lanAddress, lanFront, ownSource } from './lanFront';
import { pairings } from './pairing';
import { refusalOf } from './refusal';
import type { Refusal } from './refusal';

/** The application behind a front that refuses what no page of its own would send. */

const { values } = parseArgs({
  options: {
    host: { type: 'string', default: '127.0.0.1' },
    port: { type: 'string', default: '3210' },
    lan: { type: 'boolean', default: false },
    'lan-host': { type: 'string', default: '0.0.0.0' },
    'lan-port': { type: 'string' },
    // Pages are read when they are asked for: for whoever asks for none.
    cold: { type: 'boolean', default: false },
  },
});
const port = Number(values.port);

/** Addresses of this machine alone, or of all its networks: what the front for phones can ask the program by. */
const REACHED = ['127.0.0.1', 'localhost', '0.0.0.0'];
if (values.lan && !REACHED.includes(values.host)) {
  console.error(
    `--lan gives paired phones an address of their own (--lan-host ${values['lan-host']}); the program itself must then listen on 127.0.0.1, localhost or 0.0.0.0, not on ${values.host}. Leave --host out.`,
  );
  process.exit(2);
}

function refuse(response: ServerResponse, { status, code, message }: Refusal): void {
  const body = JSON.stringify({ error: { code, message, details: null } });
  response.writeHead(status, { ...securityHeaders, 'Content-Type': 'application/json', Connection: 'close' });
  response.end(body);
}

try {
  await lockFolder(dataFolder());
  await refuseNewer(dataFolder());
  // What was on its way as a server before this one ended.
  rmSync(passing(dataFolder()), { recursive: true, force: true });
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}

/** After the first pages, milliseconds. */
const LOOKS_AFTER = 5000;

async function warnWhereOpen(folder: string): Promise<void> {
  if (!(await lockHolds(folder)))
    console.error(
      `File locks don’t work in ${folder}: never let two programs use it at once. Better, pass a folder on a local disk with --data.`,
    );
}

const application = next({ dev: false, dir: process.cwd(), hostname: values.host, port });
await application.prepare();
const handle = application.getRequestHandler();

const server = createServer((request, response) => {
  const refusal = refusalOf(request.method ?? '', request.url ?? '');
  if (refusal) return refuse(response, refusal);
  handle(request, response).catch((error: unknown) => {
    console.error(error);
    if (!response.headersSent) refuse(response, { status: 500, code: 'internal', message: 'The server failed.' });
    else response.destroy();
  });
});
// Nothing here speaks over an upgraded connection; the framework would listen for one from its first request on.
const refuseUpgrade = (_request: unknown, socket: Duplex): void => {
  socket.end('HTTP/1.1 404 Not Found\r\nConnection: close\r\nContent-Length: 0\r\n\r\n', () => socket.destroy());
};
server.on('upgrade', refuseUpgrade);
server.on('newListener', (event: string, listener: unknown) => {
  if (event === 'upgrade' && listener !== refuseUpgrade) setImmediate(() => server.off('upgrade', listener as never));
});
server.on('clientError', (_error, socket) => {
  if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
  else socket.destroy();
});
server.on('error', (error) => {
  console.error(error.message);
  process.exit(1);
});
server.listen(port, values.host, () => {
  setTimeout(() => void warnWhereOpen(dataFolder()), LOOKS_AFTER).unref();
  if (values.cold) return;
  // The pages' programs are read before somebody waits for them; what comes of it does not matter.
  const own = values.host === '0.0.0.0' ? '127.0.0.1' : values.host;
  for (const page of ['/', '/patches/-']) void fetch(`http://${own}:${port}${page}`).catch(() => undefined);
});

// A phone on the local network speaks to a front of its own, which hands out paired sheets and nothing else.
if (values.lan) {
  const shared = pairings();
  const front = lanFront(shared, ownSource(`http://127.0.0.1:${port}`));
  const phones = createServer((request, response) => {
    front(request, response).catch((error: unknown) => {
      console.error(error);
      if (!response.headersSent)
        refuse(response, { status: 502, code: 'internal', message: 'The sheet could not be loaded.' });
      else response.destroy();
    });
  });
  phones.on('error', (error) => console.error(`the local network: ${error.message}`));
  const host = values['lan-host'];
  const lanPort = Number(values['lan-port'] ?? port + 1);
  phones.listen(lanPort, host, () => {
    shared.address = `http://${host === '0.0.0.0' ? (lanAddress() ?? '127.0.0.1') : host}:${lanPort}`;
    console.log(`paired phones reach their sheets at ${shared.address}`);
  });
}
