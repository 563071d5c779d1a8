import { channelTitle, kindTitle } from '@/core';
import type { Proposal, Rack } from '@/core';

/** A suggested route in words: `Scale and offset (Four scalers, channel A), then Inverter`. */
export const stagesText = (stages: Proposal['stages'], rack: Rack | null): string =>
  stages.length === 0
    ? 'Direct, using the destination’s own knobs'
    : stages.map((s) => `${kindTitle(s.kind)}${s.rack ? ` (${channelTitle(rack, s.rack)})` : ''}`).join(', then ');
