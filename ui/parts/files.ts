import { parsePatch, recordingsOf } from '@/core';
import type { Json } from '@/core';
import { api } from './api';
import type { Document } from '@/wire/patches';
import { importJob } from './importJob';

const safeName = (name: string): string => name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'patch';

/** Hands a file to the browser. */
export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = Object.assign(window.document.createElement('a'), { href: url, download: safeName(name) });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Hands a patch with the recordings that it plays to the browser, as one zip. */
export async function downloadBundle(name: string, document: Document): Promise<void> {
  const result = parsePatch(document);
  const ids = result.ok ? recordingsOf(result.value) : [];
  const recordings = await Promise.all(ids.map((id) => api.getAsset(id)));
  const bytes = await importJob((worker) => worker.pack({ document, recordings })).done;
  saveFile(`${name}.fenvo.zip`, new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/zip' }));
}

/** Hands a document to the browser as a file. */
export function downloadPatch(name: string, document: { readonly [key: string]: Json }): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  saveFile(`${name}.fenvo.json`, new Blob([text], { type: 'application/json' }));
}
