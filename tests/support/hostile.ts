import { connect } from 'node:net';
import { stream } from '../../core/kinds/random';

const METHODS = ['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'HEAD', 'OPTIONS', 'TRACE', 'FOO'];
const PATHS = [
  '/',
  '/api/patches',
  '/api/patches/x',
  '/api/patches/%00',
  '/api/patches/../../etc/passwd',
  '/api/patches/%E0%A4%A',
  '/api/assets',
  '/api/assets?name=x&sampleRate=1e9',
  '/api/patches?deleted=maybe',
  '/api/patches/lamp/history/-1',
  '/api/patches/lamp/history/999999999999',
  '/patches/<script>',
  '/_next/../package.json',
  '/api/health?x=%ff',
  '*',
  '//x',
];
const BODIES = [
  '',
  '{}',
  '[',
  'null',
  '{"patch":null}',
  '{"patch":{"format":"fenvo.patch","version":2e9}}',
  '\xff\xfe',
  '['.repeat(3000),
  '{"baseRevision":-1,"patch":{}}',
  '{"patch":{"format":"fenvo.patch","version":1,"modules":[{"id":"__proto__","kind":"constructor"}]}}',
];
const HEADERS = [
  '',
  'Origin: http://elsewhere.example\r\n',
  'Sec-Fetch-Site: cross-site\r\n',
  'Content-Length: -1\r\n',
  'Transfer-Encoding: chunked\r\n',
  'Upgrade: websocket\r\nConnection: Upgrade\r\n',
  'Range: bytes=0-99999999999\r\n',
  'Expect: 100-continue\r\n',
  `X-Long: ${'a'.repeat(4000)}\r\n`,
];

/** Sends some bytes on a connection of its own; answers the status, or 0 where the connection was only closed. */
function status(port: number, text: string): Promise<number> {
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1', () => socket.end(text, 'latin1'));
    let answer = '';
    const done = (): void => {
      socket.destroy();
      resolve(Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1] ?? 0));
    };
    socket.setTimeout(4000, done);
    socket.on('data', (data) => (answer += data.toString('latin1')));
    socket.on('close', done);
    socket.on('error', done);
  });
}

export interface Hostile {
  /** Those that were answered as a fault of the server's, or with silence where health is asked for. */
  readonly faults: string[];
  readonly asked: number;
  /** What it took to answer whether all is well, in the midst of them: the worst, milliseconds. */
  readonly slowestHealth: number;
}

/** Requests put together at random from what a page would never send; after every hundred, health is asked for. */
export async function hostileRequests(url: string, port: number, count: number, seed: number): Promise<Hostile> {
  const random = stream(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const faults: string[] = [];
  let [asked, slowestHealth] = [0, 0];
  const askHealth = async (): Promise<void> => {
    const began = performance.now();
    const health = await fetch(`${url}/api/health`).catch(() => null);
    slowestHealth = Math.max(slowestHealth, performance.now() - began);
    if (!health?.ok) faults.push('the server does not answer any more');
  };
  while (asked < count) {
    const batch = Array.from({ length: Math.min(10, count - asked) }, async () => {
      const [method, path, extra, body] = [pick(METHODS), pick(PATHS), pick(HEADERS), pick(BODIES)];
      const host = random() < 0.8 ? `127.0.0.1:${port}` : 'elsewhere.example';
      const length = /Content-Length|Transfer/.test(extra)
        ? ''
        : `Content-Length: ${Buffer.byteLength(body, 'latin1')}\r\n`;
      const head = `${method} ${path} HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\nContent-Type: application/json\r\n${length}${extra}\r\n`;
      const code = await status(port, head + body);
      if (code >= 500)
        faults.push(`${code}: ${JSON.stringify(head.slice(0, 200))} ${JSON.stringify(body.slice(0, 60))}`);
    });
    // Asked while those are on their way.
    await Promise.all([...batch, ...(asked % 100 === 0 ? [askHealth()] : [])]);
    asked += batch.length;
  }
  await askHealth();
  return { faults, asked, slowestHealth };
}
