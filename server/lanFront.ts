import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { networkInterfaces } from 'node:os';
import type { Sheet } from '../core';
import { sheetHtml } from '../paper/sheetHtml';
import { securityHeaders } from './headers';
import type { Pairings, SheetPlace } from './pairing';

/** What the front needs of the program: one sheet, and its ticks. */
export interface SheetSource {
  sheet(place: SheetPlace): Promise<Sheet>;
  ticks(place: SheetPlace): Promise<unknown>;
  /** @returns what is known after it, or null where what was sent is no list of ticks. */
  addTicks(place: SheetPlace, body: string): Promise<unknown>;
}

const COOKIE = 'fenvo-phone';
const MOST_BYTES = 1_000_000;

function answer(
  response: ServerResponse,
  status: number,
  type: string,
  body: string,
  more: Record<string, string> = {},
): void {
  response.writeHead(status, { ...securityHeaders, 'Content-Type': type, 'Cache-Control': 'no-store', ...more });
  response.end(body);
}

const refuse = (response: ServerResponse, status: number, says: string): void =>
  answer(response, status, 'text/plain; charset=utf-8', says);

function tokenOf({ headers }: IncomingMessage): string {
  const found = (headers.cookie ?? '').split(/;\s*/).find((c) => c.startsWith(`${COOKIE}=`));
  return found?.slice(COOKIE.length + 1) ?? '';
}

async function bodyOf(request: IncomingMessage): Promise<string | null> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_BYTES) return null;
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

/** A page of another site cannot send here: it must say that it comes from this one. */
const fromItself = ({ headers }: IncomingMessage): boolean =>
  headers.origin === undefined || headers.origin === `http://${headers.host ?? ''}`;

async function ticks(
  request: IncomingMessage,
  response: ServerResponse,
  source: SheetSource,
  place: SheetPlace,
  steps: ReadonlySet<string>,
): Promise<void> {
  const json = (known: unknown): void => answer(response, 200, 'application/json', JSON.stringify(known));
  if (request.method === 'GET') return json(await source.ticks(place));
  if (request.method !== 'PUT' || !fromItself(request)) return refuse(response, 405, 'Only ticks are accepted here.');
  const body = await bodyOf(request);
  const own = body === null ? null : ownTicks(body, steps);
  const known = own === null ? null : await source.addTicks(place, own);
  if (known === null) return refuse(response, 400, 'These are no ticks of this sheet.');
  return json(known);
}

/** Of what a phone sends the ticks of steps that it was given; null where there are more than it has steps, or none. */
function ownTicks(body: string, steps: ReadonlySet<string>): string | null {
  try {
    const { ticks: sent } = JSON.parse(body) as { readonly ticks?: unknown };
    if (typeof sent !== 'object' || sent === null) return null;
    const entries = Object.entries(sent);
    if (entries.length > steps.size) return null;
    return JSON.stringify({ ticks: Object.fromEntries(entries.filter(([step]) => steps.has(step))) });
  } catch {
    return null;
  }
}

/** Asks before a code is spent: what merely looks a link up, as a preview does, pairs nothing. */
function askPage(response: ServerResponse, code: string): void {
  const nonce = randomUUID();
  const policy = `default-src 'none'; style-src 'nonce-${nonce}'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'`;
  const safe = code.replace(/[^A-Za-z0-9]/g, '').slice(0, 40);
  const html = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>Fenvo: pair this phone</title><style nonce="${nonce}">body{font:18px/1.5 sans-serif;margin:2rem;background:#F4F1EA;color:#1C2B33}button{font:inherit;padding:1rem 1.5rem;border:1px solid #1C2B33;border-radius:4px;background:#123F4A;color:#FBF9F4}</style></head><body><h1>Patch sheet</h1><p>This phone will see one patch sheet and can tick its steps until the pairing ends.</p><form method="post" action="/pair"><input type="hidden" name="code" value="${safe}"><button type="submit">Pair this phone</button></form></body></html>`;
  answer(response, 200, 'text/html; charset=utf-8', html, { 'Content-Security-Policy': policy });
}

/** Takes a code for a cookie. */
async function redeem(request: IncomingMessage, response: ServerResponse, pairings: Pairings): Promise<void> {
  if (!fromItself(request)) return refuse(response, 403, 'A code is spent on its own page alone.');
  const body = (await bodyOf(request)) ?? '';
  const code = new URLSearchParams(body).get('code') ?? '';
  const made = pairings.redeem(code, request.headers['user-agent'] ?? '', request.socket.remoteAddress ?? '');
  if (!made) return refuse(response, 403, 'Invalid or expired code. Get a new one from the patch sheet.');
  const cookie = `${COOKIE}=${made.token}; HttpOnly; SameSite=Strict; Path=/; Max-Age=43200`;
  response.writeHead(303, { ...securityHeaders, Location: '/', 'Set-Cookie': cookie, 'Cache-Control': 'no-store' });
  response.end();
}

async function page(
  response: ServerResponse,
  source: SheetSource,
  place: SheetPlace,
  given: (steps: readonly string[]) => void,
): Promise<void> {
  const nonce = randomUUID();
  const policy = `default-src 'none'; script-src 'nonce-${nonce}'; style-src 'nonce-${nonce}'; connect-src 'self'; img-src data:; media-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'`;
  const sheet = await source.sheet(place);
  given(sheet.steps.map((s) => s.id));
  const html = sheetHtml(sheet, { nonce, sync: '/ticks' });
  answer(response, 200, 'text/html; charset=utf-8', html, { 'Content-Security-Policy': policy });
}

/**
 * What a phone on the local network may do, and nothing else: be paired by a code, see the one sheet that it was paired
 * for, and send and fetch its ticks.
 */
export function lanFront(pairings: Pairings, source: SheetSource) {
  return async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const url = new URL(request.url ?? '/', 'http://phone');
    if (url.pathname === '/pair' && request.method === 'GET')
      return askPage(response, url.searchParams.get('code') ?? '');
    if (url.pathname === '/pair' && request.method === 'POST') return redeem(request, response, pairings);
    const token = tokenOf(request);
    const place = pairings.placeOf(token);
    if (!place)
      return refuse(response, 403, 'This phone isn’t paired. Get a code from the patch sheet on your computer.');
    if (url.pathname === '/ticks') return ticks(request, response, source, place, pairings.stepsOf(token));
    if (url.pathname === '/' && request.method === 'GET')
      return page(response, source, place, (steps) => pairings.give(token, steps));
    refuse(response, 404, 'Not available from a phone.');
  };
}

/** The first address that others of the local network could reach this machine by. */
export function lanAddress(): string | null {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.find((a) => a.family === 'IPv4' && !a.internal)?.address ?? null;
}

/** Asks the program itself, on its own address. */
export function ownSource(url: string): SheetSource {
  const at = (place: SheetPlace, what: string): string =>
    `${url}/api/patches/${encodeURIComponent(place.patch)}/${what}?${new URLSearchParams(place.rack ? { rack: place.rack } : {}).toString()}`;
  const json = async (response: Response): Promise<unknown> => {
    if (!response.ok) throw new Error(`the program answered ${response.status}`);
    return response.json();
  };
  return {
    sheet: async (place) => (await json(await fetch(at(place, 'sheet')))) as Sheet,
    ticks: async (place) => json(await fetch(at(place, 'ticks'))),
    async addTicks(place, body) {
      const response = await fetch(at(place, 'ticks'), {
        method: 'PUT',
        body,
        headers: { 'Content-Type': 'application/json' },
      });
      return response.status === 400 ? null : json(response);
    },
  };
}
