import { spawn } from 'node:child_process';
import { connect } from 'node:net';
import { rmSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crashRounds } from './support/crash';
import { heavyDocument } from './support/heavyDocument';
import { hostileRequests } from './support/hostile';
import { Application } from './support/setup';

let application: Application;
beforeAll(async () => {
  application = await Application.open({ cold: true });
});
afterAll(() => application.close());

const call = (method: string, at: string, body?: unknown): Promise<Response> =>
  fetch(`${application.url}/api${at}`, {
    method,
    ...(body !== undefined && { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  });

const send = (method: string, at: string, body: string): Promise<Response> =>
  fetch(`${application.url}/api${at}`, { method, body, headers: { 'Content-Type': 'application/json' } });

/** What a bare connection gets for some bytes. */
function answerTo(text: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect(application.port, '127.0.0.1', () => socket.write(text));
    let answer = '';
    socket.setTimeout(5000, () => socket.destroy(new Error('no answer')));
    socket.on('data', (data) => (answer += data.toString()));
    socket.on('close', () => resolve(answer));
    socket.on('error', reject);
  });
}

describe('recordings', () => {
  it('of every allowed size arrive whole', async () => {
    const volts = Float32Array.from({ length: 6_000_000 }, (_, i) => 5 * Math.sin(i / 50));
    const put = await fetch(`${application.url}/api/assets?name=long&sampleRate=48000`, {
      method: 'POST',
      body: volts,
    });
    const { id } = (await put.json()) as { id: string };
    const got = await (await fetch(`${application.url}/api/assets/${id}`)).arrayBuffer();
    expect(got.byteLength).toBe(volts.byteLength);
    expect(Buffer.from(got).equals(Buffer.from(volts.buffer))).toBe(true);
  });
  it('that are cut short on the way are refused', async () => {
    const head = 'POST /api/assets?name=x&sampleRate=8000 HTTP/1.1\r\n';
    const rest = `Host: 127.0.0.1:${application.port}\r\nContent-Length: 4000\r\nConnection: close\r\n\r\n`;
    const socket = connect(application.port, '127.0.0.1');
    await new Promise<void>((resolve) => socket.write(head + rest + '\0'.repeat(400), () => resolve()));
    socket.resume();
    socket.end();
    await new Promise((resolve) => socket.once('close', resolve));
    expect(await (await call('GET', '/health')).json()).toMatchObject({ ok: true });
  });
});

describe('the heaviest patch', () => {
  it('is saved, listed, opened and looked back on while the server goes on answering', async () => {
    const created = JSON.stringify({ patch: heavyDocument() });
    const saves = [1, 2, 3, 4].map((baseRevision) => JSON.stringify({ baseRevision, patch: heavyDocument() }));
    const slow: number[] = [];
    let going = true;
    const watch = (async () => {
      while (going) {
        const start = performance.now();
        await call('GET', '/health');
        slow.push(performance.now() - start);
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
    })();
    const made = await (await send('POST', '/patches', created)).text();
    const id = /"id":"([^"]+)"/.exec(made)?.[1] ?? '';
    for (const save of saves) expect((await send('PUT', `/patches/${id}`, save)).status).toBe(200);
    await call('GET', '/patches').then((r) => r.json());
    await call('GET', `/patches/${id}`).then((r) => r.text());
    // Saves within a minute share one body: the first and the last are there.
    const { revisions } = (await (await call('GET', `/patches/${id}/history`)).json()) as {
      revisions: { revision: number }[];
    };
    expect([revisions[0]?.revision, revisions.at(-1)?.revision]).toEqual([5, 1]);
    going = false;
    await watch;
    console.log(`health beside the heaviest patch, ms: most ${Math.round(Math.max(...slow))} of ${slow.length}`);
    await call('DELETE', `/patches/${id}`);
    expect((await call('DELETE', `/patches/${id}?forever=true`)).status).toBe(200);
  });
});

describe('requests that no page of its own sends', () => {
  it('are answered with a refusal, not with a fault', async () => {
    const host = `Host: 127.0.0.1:${application.port}\r\n`;
    expect(await answerTo(`TRACE / HTTP/1.1\r\n${host}Connection: close\r\n\r\n`)).toMatch(/^HTTP\/1.1 405/);
    expect(await answerTo(`OPTIONS * HTTP/1.1\r\n${host}Connection: close\r\n\r\n`)).toMatch(/^HTTP\/1.1 400/);
    expect(await answerTo(`GET /patches/%E0%A4%A HTTP/1.1\r\n${host}Connection: close\r\n\r\n`)).toMatch(
      /^HTTP\/1.1 400/,
    );
    const upgrade = `GET /live HTTP/1.1\r\n${host}Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: eA==\r\n\r\n`;
    expect(await answerTo(upgrade)).toMatch(/^HTTP\/1.1 404/);
    expect(await answerTo('no request at all\r\n\r\n')).toMatch(/^HTTP\/1.1 400/);
  });
  it('a write from another site is refused though it sends no origin, and text that is not UTF-8', async () => {
    const from = (headers: Record<string, string>, body: BodyInit = '{}') =>
      fetch(`${application.url}/api/patches`, {
        method: 'POST',
        body,
        headers: { 'Content-Type': 'application/json', ...headers },
      });
    expect((await from({ 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403);
    expect((await from({ Referer: 'http://elsewhere.example/' })).status).toBe(403);
    expect((await from({}, Uint8Array.of(0x7b, 0xff, 0x7d))).status).toBe(400);
    const deep = `{"patch":{"format":"fenvo.patch","version":1,"x":${'['.repeat(5000)}${']'.repeat(5000)}}}`;
    expect((await from({}, deep)).status).toBe(400);
    expect((await fetch(`${application.url}/nowhere`)).headers.get('x-frame-options')).toBe('DENY');
  });
  it('by the hundred', async () => {
    const { faults, asked } = await hostileRequests(application.url, application.port, 400, 7);
    expect(faults).toEqual([]);
    expect(asked).toBe(400);
    expect(await (await call('GET', '/health')).json()).toMatchObject({ ok: true });
  });
});

describe('a server that is killed', () => {
  it('at any moment keeps every save that it acknowledged', async () => {
    expect(await crashRounds(4, 11)).toEqual([]);
  });
});

describe('a data folder', () => {
  it('that is a file, or damaged, is told as what it is', async () => {
    const run = (data: string): Promise<string> =>
      new Promise((resolve) => {
        const child = spawn(process.execPath, ['dist/seed.mjs'], { env: { ...process.env, FENVO_DATA: data } });
        let text = '';
        child.stderr.on('data', (d: Buffer) => (text += d.toString()));
        child.once('exit', () => resolve(text));
      });
    const { mkdtempSync, writeFileSync } = await import('node:fs');
    const { tmpdir } = await import('node:os');
    const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-bad-'));
    writeFileSync(path.join(folder, 'file'), 'x');
    expect(await run(path.join(folder, 'file'))).toContain('The data folder can’t be opened');
    writeFileSync(
      path.join(folder, 'fenvo.sqlite'),
      'this is no database, but a text that is long enough to be one. '.repeat(40),
    );
    expect(await run(folder)).toContain('The database file is damaged');
    rmSync(folder, { recursive: true, force: true });
  });
});
