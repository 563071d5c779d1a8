import { diagnose } from '../core/bench/diagnose';
import type { Fault } from '../core/bench/faults';
import { faultText } from '../core/bench/faultText';
import { hypothesesOf } from '../core/bench/hypotheses';
import type { BenchReading } from '../core/bench/readings';
import { benchReadings, SimulatedRack } from '../core/bench/simulated';
import { buildGraph } from '../core/graph/graph';
import { stream } from '../core/kinds/random';
import { patchOf } from '../core/testing/patch';
import { quantile } from './figures';

// How soon a diagnosis is there, and how many readings it takes until a fault that was put in blind is found: over seeded
// simulated racks, with their modules' errors and their meter's noise. FENVO_CASES tells how many; 200 by default.

const CASES = Number(process.env.FENVO_CASES ?? 200);

/** Three oscillators and three faders over four paths: 24 modules. */
const patch = patchOf(
  {
    swell: ['lfo', { rateHz: 0.25 }],
    breath: ['lfo', { rateHz: 0.5, shape: 'sine' }],
    lamp: ['lfo', { rateHz: 1, shape: 'rampUp' }],
    tide: ['constant', { volts: 2 }],
    wind: ['constant', { volts: -1 }],
    gate: ['constant', { volts: 4 }],
    trim: ['attenuverter', { amount: 0.5 }],
    press: ['attenuverter', { amount: -0.7 }],
    lift: ['offset', { volts: 2, amount: 0.6 }],
    flip: ['inverter'],
    join: ['mixer', { gain1: 0.8, gain2: 0.5 }],
    blend: ['mixer', { gain1: 0.4, gain2: 0.9 }],
    level: ['vca', { bias: 2.5 }],
    ring: ['ringMod'],
    half: ['rectifier', { mode: 'positive' }],
    slow: ['slew', { rise: 0.05, fall: 0.05 }],
    fade: ['crossfade', { position: 0.3 }],
    copy: ['mult'],
    dim: ['attenuator', { amount: 0.7 }],
    up: ['offset', { volts: -1.5, amount: 0.9 }],
    one: ['parameter'],
    two: ['parameter'],
    three: ['parameter'],
    four: ['parameter'],
  },
  [
    'swell.out > trim.in',
    'trim.out > join.in1',
    'tide.out > join.in2',
    'join.out > lift.in',
    'lift.out > one.cv',
    'breath.out > press.in',
    'press.out > level.in',
    'gate.out > level.cv',
    'level.out > copy.in',
    'copy.out1 > two.cv',
    'copy.out2 > dim.in',
    'dim.out > blend.in1',
    'wind.out > blend.in2',
    'blend.out > slow.in',
    'slow.out > three.cv',
    'lamp.out > flip.in',
    'flip.out > half.in',
    'half.out > fade.in',
    'lift.out > fade.in2',
    'fade.out > up.in',
    'up.out > four.cv',
  ],
  { duration: 4 },
);

const graph = buildGraph(patch);
const outputs = graph.modules.reduce((sum, m) => sum + m.outputs.length, 0);
const hypotheses = hypothesesOf(patch, null);
const random = stream(7);

/** A fault that changes something where the sheet measures. */
function blind(seed: number): Fault {
  for (;;) {
    const h = hypotheses[Math.floor(random() * hypotheses.length)];
    const fault = h?.is === 'solved' ? h.at(random()) : h?.fault;
    if (!fault) continue;
    const found = diagnose(patch, benchReadings(patch, { seed, faults: [fault], ideal: true }));
    if (!found.consistent) return fault;
  }
}

const bare = (fault: Fault): string => JSON.stringify({ ...fault, value: 0, gain: 0, volts: 0, ohms: 0 });

interface Told {
  readonly times: readonly number[];
  readonly counts: readonly number[];
  readonly right: number;
}

const isSame = (a: Fault, b: Fault): boolean =>
  bare(a) === bare(b) || (a.kind === b.kind && 'at' in a && 'at' in b && a.at === b.at);

/** All cases, at racks whose modules are true or are off as real ones. */
function told(trueModules: boolean): Told {
  const times: number[] = [];
  const counts: number[] = [];
  let right = 0;
  blinds.forEach((fault, n) => {
    const put = { seed: n + 1, faults: [fault], trueModules };
    const all = benchReadings(patch, put);
    const twelve = all.filter((_, i) => i % Math.max(1, Math.floor(all.length / 12)) === 0).slice(0, 12);
    const began = performance.now();
    diagnose(patch, twelve);
    times.push(performance.now() - began);
    // From the worst reading on, whatever is asked for next.
    const rack = new SimulatedRack(patch, put);
    const wrong = diagnose(patch, all).worst;
    const readings: BenchReading[] = wrong
      ? [{ at: wrong.at, quantity: wrong.quantity, value: wrong.value, knobs: [] }]
      : [];
    let found = diagnose(patch, readings);
    while (found.next && readings.length < 20) {
      const { at, quantity } = found.next;
      readings.push({ at, quantity, value: rack.read({ at, quantity, knobs: [] }), knobs: [] });
      found = diagnose(patch, readings);
    }
    counts.push(readings.length);
    const [first] = found.causes;
    const said = first && first.faults.length === 1 ? [...first.faults, ...first.alike] : [];
    if (said.some((f) => isSame(f, fault))) right++;
    else if (process.env.FENVO_TELL)
      console.log(n + 1, faultText(patch.modules, fault), '→', first?.text, first?.probability.toFixed(2));
  });
  return { times, counts, right };
}

const blinds = Array.from({ length: CASES }, (_, n) => blind(n + 1));
console.log(`${graph.modules.length} modules, ${outputs} outputs, ${hypotheses.length} single faults; ${CASES} cases`);
for (const trueModules of [true, false]) {
  const { times, counts, right } = told(trueModules);
  const mean = counts.reduce((a, b) => a + b, 0) / counts.length;
  console.log(trueModules ? 'true modules, the noise of the meter' : 'modules that are off as real ones');
  console.log(
    `  12 readings: p50 ${quantile(times, 0.5).toFixed(0)} ms, p95 ${quantile(times, 0.95).toFixed(0)} ms (500)`,
  );
  console.log(`  readings until found: ${mean.toFixed(1)} on average (${(Math.log2(outputs) + 2).toFixed(1)})`);
  console.log(`  the right one first: ${((100 * right) / CASES).toFixed(0)}% (90%)`);
}
