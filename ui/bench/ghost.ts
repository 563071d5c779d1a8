import type { Cause } from '@/core';

/** The editor with what the voltages would be with a fault; which one is said behind the address, so that no server keeps it. */
export const ghostAddress = (patchId: string, { faults, text }: Pick<Cause, 'faults' | 'text'>): string =>
  `/patches/${patchId}#fault=${encodeURIComponent(JSON.stringify({ faults, text }))}`;
