import type { ParamValue } from '../kinds/params';
import type { Json } from './types';

/** What a channel can do while its switches stand one way. */
export interface ChannelMode {
  readonly kind: string;
  /** Parameters that have one value there. */
  readonly fixed: Readonly<Record<string, ParamValue>>;
  /** Knobs that reach less far than their kind's. */
  readonly ranges: Readonly<Record<string, readonly [number, number]>>;
  /** What jumpers and switches allow. */
  readonly choices: Readonly<Record<string, readonly ParamValue[]>>;
}

/** What an empty socket of a channel carries: a voltage, or a socket of another channel of its module. */
export type ChannelNormal =
  | { readonly to: string; readonly volts: number }
  | { readonly to: string; readonly from: string; readonly brokenBy?: 'source' };

/** What a panel says about a knob: its printed ends, and which figure stands at which pointer position (0..1). */
export interface PanelScale {
  readonly scale: readonly [number, number];
  readonly points?: readonly (readonly [position: number, figure: number])[];
}

/** What was learned of a channel by measuring it. */
export interface Measured {
  readonly gain?: number;
  readonly offsetVolts?: number;
  /** One sigma of its knobs, as a share of their travel. */
  readonly spread?: number;
  readonly at?: string;
}

export interface Channel {
  readonly id: string;
  readonly label?: string;
  /** One, or what a switch turns it into; it plays one at a time. */
  readonly modes: readonly [ChannelMode, ...ChannelMode[]];
  readonly normals: readonly ChannelNormal[];
  readonly outputOhms: Readonly<Record<string, number>>;
  readonly inputOhms: Readonly<Record<string, number>>;
  readonly knobs: Readonly<Record<string, PanelScale>>;
  readonly measured?: Measured;
}

export interface RackModule {
  readonly id: string;
  readonly name: string;
  /** Of the catalogue. */
  readonly type?: string;
  readonly hp?: number;
  readonly row?: number;
  /** Where it begins in its row, in HP. */
  readonly at?: number;
  readonly channels: readonly Channel[];
}

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

export const RACK_LIMITS = {
  modules: 200,
  channels: 16,
  modes: 8,
  normals: 32,
  points: 64,
  hp: 200,
  rows: 40,
  place: 1000,
} as const;

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

export const placeNamed = (rack: Rack, name: string): RackPlace | undefined =>
  placesOf(rack).find((p) => p.name === name);
