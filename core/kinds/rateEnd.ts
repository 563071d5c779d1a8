import type { EndSpec } from './traits';

/** Rates that a voltage leads to, Hz. */
const LEAST = 0.0001;
const MOST = 20_000;

/** A rate input of 1 V/oct as a destination. @param at the rate at a voltage, Hz. */
export const rateEnd = <P>(says: string, at: (p: P, volts: number) => number): EndSpec<P> => ({
  socket: 'rate',
  sockets: ['rate'],
  quantity: 'rate',
  unit: () => 'Hz',
  always: false,
  says,
  drive: (_b, _p, io) => io.in('rate'),
  value: at,
  window: (p) => [Math.log2(LEAST / at(p, 0)), Math.log2(MOST / at(p, 0))],
  pins: true,
});
