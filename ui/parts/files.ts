import { parsePatch, recordingsOf } from '@/core';
import type { Json, Patch } from '@/core';
import { api } from './api';
import type { Document } from '@/wire/patches';
import { importJob } from './workerJob';

const safeName = (name: string): string => name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'patch';

/** Hands a file to the browser. */
export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = Object.assign(window.document.createElement('a'), { href: url, download: safeName(name) });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Hands patches with the recordings that they play to the browser, as one zip. */
export async function downloadBundle(name: string, documents: readonly Document[]): Promise<void> {
  const ids = documents.flatMap((document) => {
    const result = parsePatch(document);
    return result.ok ? recordingsOf(result.value) : [];
  });
  const recordings = await Promise.all([...new Set(ids)].map((id) => api.getAsset(id)));
  const bytes = await importJob((worker) => worker.pack({ documents, recordings })).done;
  saveFile(`${name}.fenvo.zip`, new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/zip' }));
}

/** Hands a document to the browser as a file. */
export function downloadPatch(name: string, document: { readonly [key: string]: Json }): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  saveFile(`${name}.fenvo.json`, new Blob([text], { type: 'application/json' }));
}

/** Hands a patch to the browser as a graph that Graphviz draws. */
export async function downloadGraph(patch: Patch): Promise<void> {
  const { patchToDot } = await import('@/core/formats/dot');
  saveFile(`${patch.name}.dot`, new Blob([patchToDot(patch)], { type: 'text/vnd.graphviz' }));
}

/** Hands a patch to the browser as tables of its modules, cables and settings. */
export async function downloadTables(patch: Patch): Promise<void> {
  const { packTables } = await import('@/core/formats/tables');
  saveFile(`${patch.name} tables.zip`, new Blob([packTables(patch)], { type: 'application/zip' }));
}

/** Hands a rack to the browser as a file. */
export function downloadRack(name: string, document: { readonly [key: string]: Json }): void {
  saveFile(
    `${name}.fenvo-rack.json`,
    new Blob([`${JSON.stringify(document, null, 2)}\n`], { type: 'application/json' }),
  );
}
