import type { Json } from '@/core';

const safeName = (name: string): string => name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'patch';

/** Hands a file to the browser. */
export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = Object.assign(window.document.createElement('a'), { href: url, download: safeName(name) });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Hands a document to the browser as a file. */
export function downloadPatch(name: string, document: { readonly [key: string]: Json }): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  saveFile(`${name}.fenvo.json`, new Blob([text], { type: 'application/json' }));
}
