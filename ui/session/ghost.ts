import { createStore } from 'zustand';
import type { Fault } from '@/core';

/** A fault that is looked at: what the voltages would be with it. */
export interface Ghost {
  readonly text: string;
  readonly faults: readonly Fault[];
}

export const ghost = createStore<{ readonly shown: Ghost | null }>(() => ({ shown: null }));
