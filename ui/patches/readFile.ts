import { inMegabytes } from '@/wire/sizes';
import { LIMITS, parsePatch, parseRack, printPatch } from '@/core';
import type { Patch, Result } from '@/core';
import type { Bundle } from '@/core/formats/bundle';
import { api } from '@/ui/parts/api';
import { rackApi } from '@/ui/parts/rackApi';
import { tell } from '@/ui/parts/messages';
import { importJob } from '@/ui/parts/workerJob';
import type { Document } from '@/wire/patches';

/** The documents of a file, or what is wrong with it, line by line. */
export type FileRead = Result<readonly Document[], readonly string[]>;

const wrong = (...errors: string[]): FileRead => ({ ok: false, errors });
const said = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Whether a document says of itself that it is a rack. */
const isRack = (json: unknown): boolean =>
  typeof json === 'object' && json !== null && 'format' in json && json.format === 'fenvo.rack';

/** Reads all of them before any is stored. */
function documentsOf(all: readonly unknown[]): FileRead {
  const documents: Document[] = [];
  for (const json of all) {
    if (isRack(json)) {
      const rack = parseRack(json);
      if (!rack.ok) return wrong(...rack.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`));
      continue;
    }
    const result = parsePatch(json);
    if (!result.ok) return wrong(...result.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`));
    documents.push(printPatch(result.value));
  }
  return { ok: true, value: documents };
}

/** A patch that stood in a form of others. */
const readAs = (read: Result<Patch, string[]>): FileRead =>
  read.ok ? { ok: true, value: [printPatch(read.value)] } : wrong(...read.errors);

/** A zip holds a patch's tables, or patches with their recordings. */
async function readZip(file: File): Promise<FileRead> {
  if (file.size > LIMITS.bytes) return readBundle(file);
  const { unpackTables } = await import('@/core/formats/tables');
  const tables = unpackTables(new Uint8Array(await file.arrayBuffer()));
  return tables ? readAs(tables) : readBundle(file);
}

async function readGraph(file: File): Promise<FileRead> {
  const { patchOfDot } = await import('@/core/formats/dot');
  return readAs(patchOfDot(await file.text()));
}

/** Stores what a bundle plays; what is there already is not stored twice. */
async function readBundle(file: File): Promise<FileRead> {
  const bundle = await importJob<Result<Bundle, string>>(async (worker) => worker.unpack(file)).done;
  if (!bundle.ok) return wrong(bundle.errors);
  const read = documentsOf(bundle.value.documents);
  if (!read.ok) return read;
  for (const { name, sampleRate, volts } of bundle.value.recordings) await api.putAsset(name, sampleRate, volts);
  for (const rack of bundle.value.documents.filter(isRack)) await rackApi.create(rack as Document);
  return read;
}

/** Reads a patch file, a graph, or a zip: of patches and recordings, or of a patch's tables. */
export async function readFile(file: File): Promise<FileRead> {
  try {
    if (/\.zip$/i.test(file.name)) return await readZip(file);
    if (file.size > LIMITS.bytes) return wrong(`The file is too large (limit ${inMegabytes(LIMITS.bytes)}).`);
    if (/\.(dot|gv)$/i.test(file.name)) return await readGraph(file);
    const json: unknown = JSON.parse(await file.text());
    const read = documentsOf([json]);
    if (read.ok && isRack(json)) {
      await rackApi.create(json as Document);
      tell('Rack imported. You’ll find it under Racks.');
    }
    return read;
  } catch (error) {
    return wrong(error instanceof SyntaxError ? `Not valid JSON: ${error.message}` : said(error));
  }
}
