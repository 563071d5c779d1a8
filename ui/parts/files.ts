import type { Json } from '@/core';

/** Hands a document to the browser as a file. */
export function downloadPatch(name: string, document: { readonly [key: string]: Json }): void {
  const safe = name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'patch';
  const url = URL.createObjectURL(new Blob([`${JSON.stringify(document, null, 2)}\n`], { type: 'application/json' }));
  const link = Object.assign(window.document.createElement('a'), { href: url, download: `${safe}.fenvo.json` });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
