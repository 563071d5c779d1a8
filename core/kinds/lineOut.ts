import { gainOf } from '../units/ratios';
import { showNumber } from '../units/show';
import { kind, never, signal } from './kind';
import type { EndSpec } from './kind';
import { flag, number } from './params';

/** 0 dBu, volts RMS. */
const DBU_VOLTS = 0.7746;
/** Nominal studio level, dBu. */
export const NOMINAL_DBU = 4;
/** Nominal level of home gear, −10 dBV, in dBu. */
export const HOME_DBU = -10 - 20 * Math.log10(DBU_VOLTS);

interface Pad {
  readonly padDb: number;
  readonly dcBlock: boolean;
}

function levelEnd(socket: string): EndSpec<Pad> {
  return {
    socket,
    sockets: [socket],
    quantity: 'level',
    unit: () => 'dBu',
    always: false,
    says: 'nominal +4 dBu; modular level is much hotter',
    drive(b, p, io) {
      const x = p.dcBlock ? b.couple(io.in(socket)) : io.in(socket);
      return b.scale(x, gainOf(-p.padDb));
    },
    value: (_p, v) => (v === 0 ? null : 20 * Math.log10(Math.abs(v) / DBU_VOLTS)),
    // Nothing is lost at a line output: how hot it is, the level says.
    window: () => null,
    span: (_p, lo, hi) => (lo >= 0 ? [lo, hi] : hi <= 0 ? [hi, lo] : [0, Math.max(-lo, hi)]),
  };
}

export const lineOut = kind({
  name: 'lineOut',
  title: 'Line output',
  does: 'feeds a mixer, interface or speakers',
  aliases: ['output'],
  words: { params: { padDb: 'Pad', dcBlock: 'DC block' } },
  formula: 'level in dBu (RMS, 0 dBu = 0.7746 V) after padDb, the constant part taken away by dcBlock',
  category: 'end',
  electrical: {
    unracked: 'where none is',
  },
  sound: {
    outlet: { stopsDc: (p) => p.dcBlock },
  },
  offered: 6,
  params: { padDb: number(0, 0, 60, 'dB'), dcBlock: flag(false) },
  brief: (p) => `pad ${showNumber(p.padDb, 0)} dB`,
  inputs: () => [signal('left'), signal('right')],
  outputs: () => [],
  memory: never,
  law: () => ({}),
  ends: [levelEnd('left'), levelEnd('right')],
});
