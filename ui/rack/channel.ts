import type { Channel, Rack, RackModule } from '@/core';
import { changeChannel } from './edits';
import { rackFault } from './limits';

export interface ChannelProps {
  readonly rack: Rack;
  readonly module: RackModule;
  readonly channel: Channel;
  readonly edit: (rack: Rack) => void;
}

/** Changes a channel; a text says why that cannot be. */
export function putChannel(
  { rack, module: m, channel: c, edit }: ChannelProps,
  change: (c: Channel) => Channel,
): string | null {
  const next = changeChannel(rack, m.id, c.id, change);
  const fault = rackFault(next);
  if (fault === null) edit(next);
  return fault;
}
