import { createStore } from 'zustand';
import type { ChannelFault, ChannelLimits, Rack } from '@/core';

interface Channels {
  /** The chosen rack, once it is there. */
  readonly rack: Rack | null;
  /** What its channels allow of the open patch; null where no rack is chosen. */
  readonly limits: ChannelLimits | null;
  readonly faults: readonly ChannelFault[];
  /** The choice of a rack that this answers to; null until something is known of it. */
  readonly answered: string | null;
}

/** What the chosen rack says of the patch in the editor; filled by who watches it. */
export const channels = createStore<Channels>(() => ({ rack: null, limits: null, faults: [], answered: null }));
