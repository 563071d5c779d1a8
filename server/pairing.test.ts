import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sheetOf } from '../core';
import { patchOf } from '../core/testing/patch';
import { lanFront } from './lanFront';
import type { SheetSource } from './lanFront';
import { CODE_LASTS, Pairings, PAIRING_LASTS } from './pairing';

const place = { patch: 'fog', rack: 'pier' };
let now = 1_000_000;
let pairings: Pairings;
beforeEach(() => {
  now = 1_000_000;
  pairings = new Pairings(() => now);
});

describe('a pairing', () => {
  it('takes a code once, for the sheet that it was made for', () => {
    const { code } = pairings.issue(place);
    const made = pairings.redeem(code, 'a phone', 'a')!;
    expect(made.place).toEqual(place);
    expect(pairings.placeOf(made.token)).toEqual(place);
    expect(pairings.redeem(code, 'another phone', 'b')).toBeNull();
    expect(pairings.list()).toMatchObject([{ patch: 'fog', agent: 'a phone', since: now }]);
  });

  it('takes no foreign code, no old one, and of an address none at all after too many wrong ones', () => {
    expect(pairings.redeem('NOSUCHCODE', '', 'a')).toBeNull();
    const { code } = pairings.issue(place);
    now += CODE_LASTS + 1;
    expect(pairings.redeem(code, '', 'a')).toBeNull();
    const fresh = pairings.issue(place);
    for (let i = 0; i < 20; i++) pairings.redeem(`WRONG${i}`, '', 'a');
    expect(pairings.redeem(fresh.code, '', 'a')).toBeNull();
    // Guessing from one address locks out no other.
    expect(pairings.redeem(fresh.code, '', 'b')).not.toBeNull();
    const other = pairings.issue(place);
    now += 61_000;
    expect(pairings.redeem(other.code, '', 'a')).not.toBeNull();
  });

  it('ends when it is told to, and by itself after an evening', () => {
    const token = () => pairings.redeem(pairings.issue(place).code, '', 'a')!.token;
    const [a, b] = [token(), token()];
    expect(pairings.end(pairings.list()[0]!.id)).toBe(true);
    expect([pairings.placeOf(a), pairings.placeOf(b)]).toEqual([null, place]);
    now += PAIRING_LASTS + 1;
    expect(pairings.placeOf(b)).toBeNull();
    expect(pairings.end('nobody')).toBe(false);
  });

  it('has codes that nobody guesses', () => {
    const codes = new Set(Array.from({ length: 200 }, () => pairings.issue(place).code));
    expect(codes.size).toBe(200);
    for (const code of codes) expect(code).toMatch(/^[A-HJ-NP-Z2-9]{10}$/);
  });
});

describe('what a phone may do', () => {
  const sent: string[] = [];
  const source: SheetSource = {
    sheet: (of) => Promise.resolve({ ...sheetOf(patchOf({ slow: ['lfo'] })), patch: `${of.patch} on ${of.rack}` }),
    ticks: () => Promise.resolve({ ticks: {} }),
    addTicks: (_, body) => Promise.resolve(body.startsWith('{') ? (sent.push(body), { ticks: {} }) : null),
  };
  let close: () => Promise<void>;
  let url: string;
  beforeEach(async () => {
    const front = lanFront(pairings, source);
    const server = createServer((request, response) => void front(request, response));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    close = () => new Promise((resolve) => server.close(() => resolve()));
  });
  afterEach(() => close());

  const paired = async (): Promise<Record<string, string>> => {
    const body = new URLSearchParams({ code: pairings.issue(place).code });
    const answer = await fetch(`${url}/pair`, { method: 'POST', body, redirect: 'manual' });
    expect(answer.status).toBe(303);
    return { cookie: (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '' };
  };

  it('sees nothing without a pairing', async () => {
    for (const path of ['/', '/ticks', '/api/patches', '/patches/fog', '/../api/racks'])
      expect((await fetch(url + path)).status).toBe(403);
  });

  it('spends no code by looking its link up, as a preview does', async () => {
    const { code } = pairings.issue(place);
    const page = await fetch(`${url}/pair?code=${code}`);
    expect([page.status, page.headers.get('set-cookie')]).toEqual([200, null]);
    expect(await page.text()).toContain(`value="${code}"`);
    expect(await (await fetch(`${url}/pair?code=%22%3E%3Cscript%3E`)).text()).not.toContain('<script');
    expect(pairings.list()).toEqual([]);
    const body = new URLSearchParams({ code });
    const foreign = { origin: 'http://elsewhere.example' };
    expect((await fetch(`${url}/pair`, { method: 'POST', body, headers: foreign, redirect: 'manual' })).status).toBe(
      403,
    );
    expect((await fetch(`${url}/pair`, { method: 'POST', body, redirect: 'manual' })).status).toBe(303);
  });

  it('ticks steps of the sheet that it was given, and no others, nor more than it has', async () => {
    const headers = await paired();
    const put = (ticks: object) => fetch(`${url}/ticks`, { headers, method: 'PUT', body: JSON.stringify({ ticks }) });
    const tick = { done: true, at: 1 };
    expect((await put({ 'set-slow': tick })).status).toBe(400);
    await fetch(url, { headers });
    expect((await put({ 'set-slow': tick })).status).toBe(200);
    expect(sent.at(-1)).toBe('{"ticks":{"set-slow":{"done":true,"at":1}}}');
    expect((await put({ 'set-other': tick })).status).toBe(200);
    expect(sent.at(-1)).toBe('{"ticks":{}}');
    expect((await put({ 'set-slow': tick, 'set-a': tick, 'set-b': tick })).status).toBe(400);
  });

  it('sees its one sheet, sends ticks, and nothing else', async () => {
    const headers = await paired();
    const page = await fetch(url, { headers });
    expect(await page.text()).toContain('fog on pier');
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect((await fetch(`${url}/ticks`, { headers, method: 'PUT', body: '{"ticks":{}}' })).status).toBe(200);
    expect(sent.at(-1)).toBe('{"ticks":{}}');
    expect((await fetch(`${url}/ticks`, { headers, method: 'PUT', body: 'no json' })).status).toBe(400);
    for (const path of ['/api/patches', '/api/pairings', '/patches/fog', '/racks'])
      expect((await fetch(url + path, { headers })).status).toBe(404);
    expect((await fetch(`${url}/ticks`, { headers, method: 'DELETE' })).status).toBe(405);
  });

  it('is not spoken for by a page of another site, nor after its pairing was ended', async () => {
    const headers = await paired();
    const foreign = { ...headers, origin: 'http://elsewhere.example' };
    expect((await fetch(`${url}/ticks`, { headers: foreign, method: 'PUT', body: '{}' })).status).toBe(405);
    pairings.end(pairings.list()[0]!.id);
    expect((await fetch(url, { headers })).status).toBe(403);
  });
});
