import { parseRack } from '../document/rack';
import type { Rack } from '../document/rackTypes';

type ChannelDoc = Readonly<Record<string, unknown>>;

/** A rack in short: by module id its channels by id, each a kind or a channel's document. */
export function rackOf(modules: Readonly<Record<string, Readonly<Record<string, string | ChannelDoc>>>>): Rack {
  const result = parseRack({
    format: 'fenvo.rack',
    version: 1,
    modules: Object.entries(modules).map(([id, channels]) => ({
      id,
      channels: Object.entries(channels).map(([channel, doc]) => ({
        id: channel,
        ...(typeof doc === 'string' ? { kind: doc } : doc),
      })),
    })),
  });
  if (!result.ok) throw new Error(result.errors.map((e) => `${e.path}: ${e.message}`).join('\n'));
  return result.value;
}
