import type { Schema } from 'joi';
import { LIMITS } from '../core';
import { Assets } from './assets';
import { database } from './database';
import { ApiError } from './errors';
import { Patches } from './patches';
import { idSchema } from './schemas';

type Context = { readonly params: Promise<Readonly<Record<string, string>>> };

export interface Call {
  readonly patches: Patches;
  readonly assets: Assets;
  readonly request: Request;
  /** A path parameter, checked. */
  param<T = string>(name: string, schema?: Schema): T;
  query<T>(schema: Schema<T>): T;
  body<T>(schema: Schema<T>): Promise<T>;
  bytes(most: number): Promise<Buffer>;
}

function check<T>(schema: Schema<T>, value: unknown, where: string): T {
  const { error, value: checked } = schema.validate(value, { abortEarly: false, convert: true });
  if (!error) return checked as T;
  const details = error.details.map((d) => ({ path: d.path.join('.'), message: d.message }));
  throw new ApiError(400, 'bad-request', `The ${where} is not as expected: ${error.message}.`, details);
}

/** Reads at most the allowed bytes, whatever the request's own length says. */
async function readBytes(request: Request, most: number): Promise<Buffer> {
  const tooLarge = new ApiError(413, 'too-large', `At most ${most} bytes are taken. Nothing was stored.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge;
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
  return Buffer.concat(chunks);
}

async function readJson(request: Request): Promise<unknown> {
  const text = (await readBytes(request, LIMITS.bytes)).toString('utf8');
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new ApiError(
      400,
      'bad-json',
      `The body is not JSON: ${error instanceof Error ? error.message : 'unreadable'}.`,
    );
  }
}

function failure(error: unknown): Response {
  if (!(error instanceof ApiError)) console.error(error);
  const known =
    error instanceof ApiError ? error : new ApiError(500, 'internal', 'The server failed. Nothing was changed.');
  const { status, code, message, details } = known;
  return Response.json({ error: { code, message, details } }, { status });
}

/** Wraps a handler: parse, call, answer; every fault in the one error shape. */
export function route(handler: (call: Call) => Promise<unknown>, status = 200) {
  return async (request: Request, context: Context): Promise<Response> => {
    try {
      const params = await context.params;
      const db = await database();
      const call: Call = {
        patches: new Patches(db),
        assets: new Assets(db),
        request,
        param: (name, schema = idSchema) => check(schema, params[name], name),
        query: (schema) => check(schema, Object.fromEntries(new URL(request.url).searchParams), 'query'),
        body: async (schema) => check(schema, await readJson(request), 'body'),
        bytes: (most) => readBytes(request, most),
      };
      const answer = await handler(call);
      return answer instanceof Response ? answer : Response.json(answer, { status });
    } catch (error) {
      return failure(error);
    }
  };
}
