import { LIMITS, parsePatch, printPatch } from '@/core';
import type { Result } from '@/core';
import type { Bundle } from '@/core/formats/bundle';
import { api } from '@/ui/parts/api';
import { importJob } from '@/ui/parts/importJob';
import type { Document } from '@/wire/patches';

/** The documents of a file, or what is wrong with it, line by line. */
export type FileRead = Result<readonly Document[], readonly string[]>;

const wrong = (...errors: string[]): FileRead => ({ ok: false, errors });
const said = (error: unknown): string => (error instanceof Error ? error.message : String(error));

function documentsOf(all: readonly unknown[]): FileRead {
  const documents: Document[] = [];
  for (const json of all) {
    const result = parsePatch(json);
    if (!result.ok) return wrong(...result.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`));
    documents.push(printPatch(result.value));
  }
  return { ok: true, value: documents };
}

/** Stores what a bundle plays; what is there already is not stored twice. */
async function readBundle(file: File): Promise<FileRead> {
  const bundle = await importJob<Result<Bundle, string>>(async (worker) => worker.unpack(file)).done;
  if (!bundle.ok) return wrong(bundle.errors);
  const read = documentsOf(bundle.value.documents);
  if (!read.ok) return read;
  for (const { name, sampleRate, volts } of bundle.value.recordings) await api.putAsset(name, sampleRate, volts);
  return read;
}

/** Reads a patch file, or a zip of patches and recordings. */
export async function readFile(file: File): Promise<FileRead> {
  try {
    if (/\.zip$/i.test(file.name)) return await readBundle(file);
    if (file.size > LIMITS.bytes) return wrong(`The file is larger than ${LIMITS.bytes} bytes.`);
    return documentsOf([JSON.parse(await file.text())]);
  } catch (error) {
    return wrong(error instanceof SyntaxError ? `It is not JSON: ${error.message}` : said(error));
  }
}
