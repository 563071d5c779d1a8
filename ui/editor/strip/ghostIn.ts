import { parseFault } from '@/core';
import type { Patch } from '@/core';
import type { Ghost } from '@/ui/session/ghost';

const HASH = /^#fault=(.+)$/;

/** The fault that an address names, as far as the patch still has what it is about. */
export function ghostIn(hash: string, patch: Patch): Ghost | null {
  try {
    const { faults, text } = JSON.parse(decodeURIComponent(HASH.exec(hash)?.[1] ?? '')) as Partial<Ghost>;
    const read = (faults ?? []).map((f) => parseFault(f, patch));
    if (typeof text !== 'string' || read.length === 0) return null;
    return { text: text.slice(0, 300), faults: read.flatMap((r) => (r.ok ? [r.value] : [])) };
  } catch {
    return null;
  }
}
