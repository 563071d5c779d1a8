import type { Glance, Reading, SocketPrediction } from '@/core';

/** What arrives is known from a run alone: until the next one, what the last one told stands. */
export interface LastArrivals {
  readonly sockets: ReadonlyMap<string, Pick<SocketPrediction, 'arrives' | 'arrivesBy'>>;
  readonly readings: ReadonlyMap<string, Arriving>;
}

type Arriving = Partial<
  Pick<
    Reading,
    | 'arrivesLow'
    | 'arrivesHigh'
    | 'arrivesBy'
    | 'arrivesVolts'
    | 'lowNote'
    | 'highNote'
    | 'octaves'
    | 'fadersLow'
    | 'fadersHigh'
  >
>;

const keyOf = ({ at, quantity }: Reading): string => `${at} ${quantity}`;

/** What a run told of what arrives, where that is not the bound. */
export function arrivalsIn({ outputs, inputs, readings }: Glance): LastArrivals {
  const sockets = [...Object.entries(outputs), ...Object.entries(inputs)].filter(([, p]) => p.arrivesBy !== 'bound');
  return {
    sockets: new Map(sockets.map(([socket, { arrives, arrivesBy }]) => [socket, { arrives, arrivesBy }])),
    readings: new Map(
      readings.map((r) => [keyOf(r), arrivingOf(r)] as const).filter(([, told]) => Object.keys(told).length > 0),
    ),
  };
}

function arrivingOf(r: Reading): Arriving {
  const { arrivesLow, arrivesHigh, arrivesBy, arrivesVolts, lowNote, highNote, octaves, fadersLow, fadersHigh } = r;
  const faders = fadersHigh === undefined ? {} : { fadersLow: fadersLow ?? null, fadersHigh };
  if (arrivesBy === 'bound') return faders;
  return {
    ...faders,
    arrivesLow,
    arrivesHigh,
    arrivesBy,
    arrivesVolts,
    ...(lowNote !== undefined && { lowNote }),
    ...(highNote !== undefined && { highNote }),
    ...(octaves !== undefined && { octaves }),
  };
}

/** Bounds of this very patch, with what the last run told of what arrives. */
export function withArrivals(now: Glance, { sockets, readings }: LastArrivals): Glance {
  if (sockets.size + readings.size === 0) return now;
  const told = (all: Glance['outputs']): Glance['outputs'] =>
    Object.fromEntries(
      Object.entries(all).map(([socket, p]) => {
        const last = sockets.get(socket);
        return [socket, last ? { ...p, ...last } : p];
      }),
    );
  return {
    outputs: told(now.outputs),
    inputs: told(now.inputs),
    readings: now.readings.map((r) => {
      const last = readings.get(keyOf(r));
      return last ? { ...r, ...last } : r;
    }),
  };
}
