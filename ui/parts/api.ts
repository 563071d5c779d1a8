import type {
  ChannelUse,
  Document,
  ErrorAnswer,
  FoundPatches,
  PatchesAbout,
  PatchHead,
  RackCheck,
  SavedVersion,
  StoredPatch,
  UnusedAsset,
} from '@/wire/patches';
import type {
  CreateRequest,
  DocumentsRequest,
  KeptFor,
  RackCheckRequest,
  SaveRequest,
  SearchIdsRequest,
  SearchRequest,
  SeveralRequest,
  TagsRequest,
} from '@/wire/requests';

/** What the server said no to; or `unreachable` where it said nothing. */
export class ApiFailure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: unknown,
  ) {
    super(message);
  }
}

export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const json =
    body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  return send(method, path, json);
}

/** What the server answers, whatever it is. @throws ApiFailure where it says no, or nothing. */
export async function respond(method: string, path: string, content: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, { method, ...content });
  } catch {
    throw new ApiFailure(0, 'unreachable', 'The server isn’t responding.', null);
  }
  if (response.ok) return response;
  const answer = (await response.json().catch(() => null)) as Partial<ErrorAnswer> | null;
  const error = answer?.error;
  throw new ApiFailure(
    response.status,
    error?.code ?? 'failed',
    error?.message ?? `The server answered ${response.status}.`,
    error?.details ?? null,
  );
}

/** An answer in JSON. */
export const send = async <T>(method: string, path: string, content: RequestInit): Promise<T> =>
  (await respond(method, path, content)).json().catch(() => null) as Promise<T>;

const at = (id: string): string => `/patches/${encodeURIComponent(id)}`;

export const api = {
  health: () => call<{ ok: boolean }>('GET', '/health'),
  /** Some rows of the patches that are looked for. */
  search: (request: Partial<SearchRequest>) => call<FoundPatches>('POST', '/patches/search', request),
  /** The ids of all of them. */
  ids: (request: SearchIdsRequest) => call<{ ids: string[] }>('POST', '/patches/ids', request).then((x) => x.ids),
  about: () => call<PatchesAbout>('GET', '/patches/about'),
  uses: () => call<{ uses: ChannelUse[] }>('GET', '/patches/uses').then((x) => x.uses),
  several: (request: Omit<SeveralRequest, 'tags'> & Partial<SeveralRequest>) =>
    call<{ changed: number }>('POST', '/patches/several', request),
  documents: (ids: readonly string[]) =>
    call<{ documents: Document[] }>('POST', '/patches/documents', { ids } satisfies DocumentsRequest),
  check: (ids: readonly string[], rack: string) =>
    call<RackCheck>('POST', '/patches/check', { ids, rack } satisfies RackCheckRequest),
  get: (id: string) => call<StoredPatch>('GET', at(id)),
  create: (patch: Document, tags?: readonly string[]) =>
    call<StoredPatch>('POST', '/patches', { patch, ...(tags && { tags }) } satisfies CreateRequest),
  setTags: (id: string, tags: readonly string[]) =>
    call<PatchHead>('PUT', `${at(id)}/tags`, { tags } satisfies TagsRequest),
  /** A save that is sent again under its key is recognised as done. */
  save: (id: string, baseRevision: number, patch: Document, key?: string, changes: readonly string[] = []) =>
    call<StoredPatch>('PUT', at(id), {
      baseRevision,
      patch,
      ...(key !== undefined && { key }),
      ...(changes.length > 0 && { changes }),
    } satisfies SaveRequest),
  remove: (id: string) => call<StoredPatch>('DELETE', at(id)),
  removeForGood: (id: string) => call<{ id: string }>('DELETE', `${at(id)}?forever=true`),
  keepVersion: (id: string, revision: number, why: KeptFor) =>
    call<{ revision: number }>('POST', `${at(id)}/history/${revision}?for=${why}`),
  /** The recordings that nothing plays. */
  unusedAssets: () => call<{ unused: readonly UnusedAsset[] }>('GET', '/assets'),
  removeAssets: (ids: readonly string[]) => call<{ removed: number }>('DELETE', '/assets', { ids }),
  /** Keeps a trace, volts, and says under which id. */
  putAsset: (name: string, sampleRate: number, volts: Float32Array) =>
    send<{ id: string }>(
      'POST',
      `/assets?${new URLSearchParams({ name, sampleRate: String(sampleRate) }).toString()}`,
      { body: volts as Float32Array<ArrayBuffer>, headers: { 'Content-Type': 'application/octet-stream' } },
    ),
  /** A trace that is kept, volts, with its name. */
  async getAsset(id: string): Promise<{ id: string; name: string; sampleRate: number; volts: Float32Array }> {
    const response = await fetch(`/api/assets/${encodeURIComponent(id)}`).catch(() => null);
    if (!response?.ok)
      throw new ApiFailure(response?.status ?? 0, 'no-asset', `Recording “${id}” could not be loaded.`, null);
    const name = decodeURIComponent(response.headers.get('X-Name') ?? '');
    const sampleRate = Number(response.headers.get('X-Sample-Rate'));
    return { id, name, sampleRate, volts: new Float32Array(await response.arrayBuffer()) };
  },
  history: (id: string) => call<{ revisions: SavedVersion[] }>('GET', `${at(id)}/history`).then((x) => x.revisions),
  revision: (id: string, revision: number) => call<{ patch: Document }>('GET', `${at(id)}/history/${revision}`),
  restore: (id: string) => call<StoredPatch>('POST', `${at(id)}/restore`),
};
