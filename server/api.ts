import { inMegabytes } from '../wire/sizes';
import type { Schema } from 'joi';
import { LIMITS } from '../core';
import { Assets } from './assets';
import { Bench } from './bench';
import { BenchFiles } from './benchFiles';
import { dataFolder } from './database';
import { database, metDamage } from './library';
import { ApiError } from './checks/errors';
import type { Database } from './database';
import { storageFault } from './faults';
import { Patches, textOf } from './patches';
import { PatchSearch } from './patchSearch';
import { Racks } from './racks';
import { Practice } from './practice';
import { Preferences } from './preferences';
import { SetLists } from './setLists';
import { Walkthroughs } from './walkthroughs';
import type { StoredText } from './patches';
import { idSchema } from './checks/schemas';
import { check, readJson } from './beside/tasks';
import type { ReadRequest } from './beside/tasks';
import { threads } from './beside/thread';
import type { ErrorAnswer } from '../wire/patches';

/** The most that a body may be which is no patch, bytes. */
const SMALL = 100_000;

type Context = { readonly params: Promise<Readonly<Record<string, string>>> };

export interface Call {
  readonly library: Database;
  readonly patches: Patches;
  readonly search: PatchSearch;
  readonly assets: Assets;
  readonly racks: Racks;
  readonly setLists: SetLists;
  readonly practice: Practice;
  readonly preferences: Preferences;
  readonly walkthroughs: Walkthroughs;
  readonly bench: Bench;
  /** Photographs and recordings of sessions. */
  readonly files: BenchFiles;
  readonly request: Request;
  /** A path parameter, checked. */
  param<T = string>(name: string, schema?: Schema): T;
  query<T>(schema: Schema<T>): T;
  /** The body of a request to create or to save, read beside this thread. */
  read(what: 'create' | 'save'): Promise<ReadRequest>;
  /** A small body, checked. */
  body<T>(schema: Schema<T>, most?: number): Promise<T>;
  bytes(most: number): Promise<Buffer>;
}

/** Reads at most the allowed bytes, and neither more nor fewer than were announced. */
async function readBytes(request: Request, most: number): Promise<Buffer> {
  const tooLarge = new ApiError(413, 'too-large', `Too large: the limit is ${inMegabytes(most)}. Nothing was saved.`);
  const announced = request.headers.get('content-length');
  if (Number(announced ?? 0) > most) throw tooLarge;
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (const reader = request.body?.getReader(); reader;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > most) {
      await reader.cancel();
      throw tooLarge;
    }
    chunks.push(value);
  }
  if (announced !== null && Number(announced) !== size) {
    const message = `The upload was cut short (${size} of ${announced} bytes). Nothing was saved; try again.`;
    throw new ApiError(400, 'cut-short', message);
  }
  return Buffer.concat(chunks);
}

const isAborted = (error: unknown): boolean =>
  error instanceof Error && (error.message === 'aborted' || error.name === 'AbortError');

const json = { 'Content-Type': 'application/json' };

function failure(error: unknown): Response {
  // The client is gone: nobody to answer, and nothing was stored.
  if (isAborted(error)) return new Response(null, { status: 400 });
  const known =
    error instanceof ApiError
      ? error
      : (storageFault(error, dataFolder()) ?? new ApiError(500, 'internal', 'Server error. Nothing was changed.'));
  if (known.status >= 500) console.error(error);
  if (known.code === 'damaged') void metDamage().catch(console.error);
  const { status, code, message, details, detailsText } = known;
  if (detailsText === null)
    return Response.json({ error: { code, message, details } } satisfies ErrorAnswer, { status });
  const head = JSON.stringify({ code, message }).slice(0, -1);
  return new Response(`{"error":${head},"details":${detailsText}}}`, { status, headers: json });
}

/** A stored patch as an answer, its body as it is kept. */
export const patchAnswer = (patch: StoredText, status = 200): Response =>
  new Response(textOf(patch), { status, headers: json });

interface Options {
  readonly allowed: boolean;
}

/** Of a route that changes nothing, though it is no GET, or by which a damaged library is left. */
export const whileDamaged: Options = { allowed: true };

const READS = ['GET', 'HEAD'];
const DAMAGED =
  'The library file is damaged, so it is open read-only. This change was not saved. The patches list says what can be done.';

/** Wraps a handler: parse, call, answer; every fault in the one error shape. */
export function route<T extends object>(
  handler: (call: Call) => Promise<T | Response>,
  status = 200,
  { allowed }: Options = { allowed: false },
) {
  return async (request: Request, context: Context): Promise<Response> => {
    try {
      const params = await context.params;
      const db = await database();
      if (db.damage && !allowed && !READS.includes(request.method)) throw new ApiError(503, 'damaged', DAMAGED);
      const patches = new Patches(db);
      const call: Call = {
        library: db,
        patches,
        search: new PatchSearch(db, patches),
        assets: new Assets(db),
        racks: new Racks(db),
        setLists: new SetLists(db),
        walkthroughs: new Walkthroughs(db),
        practice: new Practice(db),
        preferences: new Preferences(db),
        bench: new Bench(db),
        files: new BenchFiles(db),
        request,
        param: (name, schema = idSchema) => check(schema, params[name], name),
        query: (schema) => check(schema, Object.fromEntries(new URL(request.url).searchParams), 'query'),
        read: async (what) => threads().reader.run('read', { bytes: await readBytes(request, LIMITS.bytes), what }),
        body: async (schema, most = SMALL) => check(schema, readJson(await readBytes(request, most)), 'body'),
        bytes: (most) => readBytes(request, most),
      };
      const answer = await handler(call);
      return answer instanceof Response ? answer : Response.json(answer, { status });
    } catch (error) {
      return failure(error);
    }
  };
}
