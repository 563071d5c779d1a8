import type { Channel, RackModule } from './rackFields';
import type { Json } from './result';

export type { Channel, PanelScale, RackModule } from './rackFields';
export type { ChannelMode } from './rackModes';
export type { ChannelNormal } from './rackNormals';

/** What a person owns. */
export interface Rack {
  readonly format: 'fenvo.rack';
  readonly version: 1;
  readonly name: string;
  readonly notes: string;
  readonly modules: readonly RackModule[];
  /** Top-level keys that this version does not know, kept as they were. */
  readonly extra: Readonly<Record<string, Json>>;
}

export const blankRack: Rack = {
  format: 'fenvo.rack',
  version: 1,
  name: 'My rack',
  notes: '',
  modules: [],
  extra: {},
};

/** `moduleId/channelId`, as a patch names a channel. */
export const channelName = (module: string, channel: string): string => `${module}/${channel}`;

export interface RackPlace {
  readonly module: RackModule;
  readonly channel: Channel;
  /** `moduleId/channelId` */
  readonly name: string;
}

/** Every channel of a rack, in its order. */
export const placesOf = (rack: Rack): RackPlace[] =>
  rack.modules.flatMap((module) =>
    module.channels.map((channel) => ({ module, channel, name: channelName(module.id, channel.id) })),
  );

/** `Four scalers, channel A`: a channel as people call it; the module alone where it has one channel only. */
export function placeTitle({ module, channel }: Pick<RackPlace, 'module' | 'channel'>): string {
  if (module.channels.length < 2) return module.name;
  const { id, label } = channel;
  return `${module.name}, channel ${label ?? (id.length <= 2 ? id.toUpperCase() : id)}`;
}

/** The same of a channel's name, `moduleId/channelId`; the name itself where the rack has no such channel. */
export function channelTitle(rack: Rack | null | undefined, name: string): string {
  const place = rack && placeNamed(rack, name);
  return place ? placeTitle(place) : name;
}

export const placeNamed = (rack: Rack, name: string): RackPlace | undefined =>
  placesOf(rack).find((p) => p.name === name);
