import { createHash } from 'node:crypto';

/** The id of a trace: what it holds names it. */
export const traceId = (sampleRate: number, bytes: Uint8Array): string =>
  createHash('sha256').update(`${sampleRate} `).update(bytes).digest('hex').slice(0, 32);
