import { socketAt } from '../document/sockets';
import { NOMINAL_DBU } from '../kinds/lineOut';
import { showNumber } from '../units/show';
import { setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

/** This much over nominal is said, dB. */
const OVER_DB = 1;
const MOST_PAD = 60;

export const hotOut: FindingRule = {
  code: 'hot-out',
  title: 'Output too hot',
  why: 'Modular level is several times line level, so the next device will clip. Pad it down, and start with that device’s input low.',
  when: 'a line output’s level is more than 1 dB above nominal +4 dBu',
  cures: 'sets the pad that brings it to nominal level',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.sound?.outlet !== undefined)
      .flatMap((m): Found[] => {
        const levels = (m.kind.ends ?? []).map((end, i) => {
          const rms = simulation.ends.get(m.id)?.[i]?.drive.rms ?? 0;
          return { at: socketAt(m.id, end.socket), overDb: (end.value(m.params, rms) ?? -Infinity) - NOMINAL_DBU };
        });
        const worst = levels.reduce((a, b) => (b.overDb > a.overDb ? b : a), { at: m.id, overDb: -Infinity });
        if (worst.overDb <= OVER_DB) return [];
        const pad = Math.min(MOST_PAD, Number((Number(m.params.padDb) + worst.overDb).toFixed(1)));
        return [
          {
            code: 'hot-out',
            severity: 'warning',
            at: worst.at,
            message: `${m.label} is ${showNumber(worst.overDb, 1)} dB above line level. Pad it, and start quiet.`,
            numbers: { overDb: worst.overDb },
            cures: [setCure(`Add a ${showNumber(pad, 1)} dB pad`, setParam(m.id, 'padDb', pad))],
          },
        ];
      });
  },
};
