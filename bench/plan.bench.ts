import { blankRack, placesOf } from '../core/document/rackTypes';
import type { Rack, RackModule } from '../core/document/rackTypes';
import { assignRack } from '../core/plan/assign';
import { goalRequest, goalSources } from '../core/plan/goal';
import { planChain } from '../core/plan/plan';
import { catalogue, moduleOfType } from '../core/rack/catalogue';
import { sheetOf } from '../core/sheet/sheet';
import { patchOf } from '../core/testing/patch';
import { row } from './figures';
import { Section } from './section';

/** How long seating, planning and a sheet take. Figures, no verdict. */

const RUNS = 40;

function times(run: (k: number) => unknown): number[] {
  return Array.from({ length: RUNS }, (_, k) => {
    const start = performance.now();
    run(k);
    return performance.now() - start;
  });
}

/** A rack from the catalogue with that many channels. */
function rackOf(channels: number): Rack {
  const types = catalogue.flatMap((c) => c.types.map((t) => t.type));
  const modules: RackModule[] = [];
  for (let n = 0; placesOf({ ...blankRack, modules }).length < channels; n++) {
    const made = moduleOfType(types[n % types.length] ?? '', `m${n}`);
    if (made) modules.push(made);
  }
  return { ...blankRack, modules };
}

const KINDS = [
  'attenuator',
  'attenuverter',
  'offset',
  'inverter',
  'mixer',
  'vca',
  'lfo',
  'envelope',
  'slew',
  'constant',
];
const forty = patchOf(
  Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`x${i}`, [KINDS[i % KINDS.length] ?? 'vca', {}] as const])),
);
const rack = rackOf(120);
const tremolo = patchOf({ slow: ['lfo'], amp: ['vca', {}, { locked: ['cvAmount', 'bias'] }], tone: ['oscillator'] }, [
  'tone.saw > amp.in',
]);
const breathing = patchOf(
  {
    swell: ['lfo', { rateHz: 0.25 }],
    trim: ['offset', { amount: 0.4, volts: 2 }],
    voice: ['oscillator'],
    tone: ['filter'],
    out: ['lineOut'],
  },
  ['swell.out > trim.in', 'trim.out > tone.cutoff', 'voice.saw > tone.in', 'tone.lowpass > out.left'],
);

const section = new Section('plan', 'Planning', '`npm run bench -- plan`, milliseconds; the worst is the first, cold.');
const told = (name: string, goal: string, run: (k: number) => unknown): void =>
  section.add(name, row(times(run)), goal);

told('seat 40 modules on 120 channels', '', () => assignRack(forty, rack));
told('a chain without a rack', 'p95 300', (k) =>
  planChain({ from: 'lfo', to: 'filter.cutoff', target: { quantity: 'frequency', low: 200 + k, high: 3200 } }),
);
told('a chain with 120 channels', 'p95 300', (k) =>
  planChain(
    { patch: tremolo, from: 'slow.out', to: 'amp.cv', target: { quantity: 'volts', low: 0.05 * k, high: 5 } },
    rack,
  ),
);
told('a chain that cannot be, with 120 channels', 'p95 300', (k) =>
  planChain(
    { patch: tremolo, from: 'slow.out', to: 'amp.cv', target: { quantity: 'volts', low: -11, high: 11 + 0.05 * k } },
    rack,
  ),
);
told('a sheet of five modules', 'p95 100', () => sheetOf(breathing));
for (const by of goalSources)
  told(`a goal of 200 Hz to 3.2 kHz by ${by}`, 'p95 300', (k) => {
    const wish = { quantity: 'frequency', low: 200 + k, high: 3200 } as const;
    const request = goalRequest({ kind: 'filter', socket: 'cutoff', wish, by });
    if (request) planChain(request);
  });
section.write();
