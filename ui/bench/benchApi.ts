import { call, send } from '@/ui/parts/api';
import type { SessionHead, StoredReading, StoredSession, TrendPoint } from '@/wire/bench';
import type {
  ChangeSessionRequest,
  FileRequest,
  OpenSessionRequest,
  ReadingsRequest,
  SentReading,
} from '@/wire/requests';

const at = (id: string): string => `/bench/sessions/${encodeURIComponent(id)}`;
const file = (id: string): string => `/bench/files/${encodeURIComponent(id)}`;

export const benchApi = {
  list: (deleted = false) =>
    call<{ sessions: SessionHead[] }>('GET', `/bench/sessions${deleted ? '?deleted=true' : ''}`).then(
      (x) => x.sessions,
    ),
  open: (wanted: OpenSessionRequest) => call<StoredSession>('POST', '/bench/sessions', wanted),
  get: (id: string) => call<StoredSession>('GET', at(id)),
  change: (id: string, change: ChangeSessionRequest) => call<StoredSession>('PUT', at(id), change),
  remove: (id: string) => call<{ id: string }>('DELETE', at(id)),
  restore: (id: string) => call<{ id: string }>('POST', `${at(id)}/restore`),
  addReadings: (id: string, readings: readonly SentReading[]) =>
    call<{ readings: StoredReading[] }>('POST', `${at(id)}/readings`, { readings } satisfies ReadingsRequest).then(
      (x) => x.readings,
    ),
  addFile: (id: string, request: FileRequest, content: Blob) =>
    send<{ id: string }>(
      'POST',
      `${at(id)}/files?${new URLSearchParams(Object.entries(request).filter((e): e is [string, string] => Boolean(e[1]))).toString()}`,
      { body: content, headers: { 'Content-Type': request.type } },
    ),
  fileAt: (id: string): string => `/api${file(id)}`,
  removeFile: (id: string) => call<{ id: string }>('DELETE', file(id)),
  restoreFile: (id: string) => call<{ id: string }>('POST', `${file(id)}/restore`),
  trend: (patch: string, socket: string, quantity: string) =>
    call<{ points: TrendPoint[] }>(
      'GET',
      `/bench/trend?${new URLSearchParams({ patch, at: socket, quantity }).toString()}`,
    ).then((x) => x.points),
  /** Where the log is had as a file. */
  logAt: (format: 'zip' | 'csv', sessions?: readonly string[]): string =>
    `/api/bench/log?${new URLSearchParams({ format, ...(sessions && { sessions: sessions.join(',') }) }).toString()}`,
  /** @param simulated a simulated rack’s seed, or `none` for the real one. */
  log: (rack: string, simulated: string) =>
    call<unknown>('GET', `/bench/log?${new URLSearchParams({ rack, simulated, format: 'json' }).toString()}`),
  importLog: (content: File) =>
    send<{ added: number; there: number }>('POST', '/bench/log', {
      body: content,
      headers: { 'Content-Type': 'application/octet-stream' },
    }),
};
