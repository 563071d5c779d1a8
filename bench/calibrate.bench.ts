import { readFileSync } from 'node:fs';
import { applyEdits, assignRack, channelLimits, parsePatch, parseRack } from '../core';
import { calibrate } from '../core/bench/calibrate';
import type { LogSession } from '../core/bench/log';
import { quantitiesAt } from '../core/bench/readings';
import { SimulatedRack } from '../core/bench/simulated';
import { drawnTraits, traitsOf } from '../core/bench/truths';
import { buildGraph } from '../core/graph/graph';
import { quantile } from './figures';

// How true what is learned of simulated racks is: of all that is told, the share within three standard errors, over the
// demo patches at the demo rack, every output read once. FENVO_RACKS tells how many racks; 50 by default.

const RACKS = Number(process.env.FENVO_RACKS ?? 50);
const json = (file: string): unknown => JSON.parse(readFileSync(file, 'utf8'));
const owned = parseRack(json('demo/racks/pier-rack.fenvo-rack.json'));
if (!owned.ok) throw new Error('the demo rack cannot be read');
const rack = owned.value;
const patches = ['fog-bank-breathing', 'two-lamps-opposite-ways', 'tide-gauge-to-three-ends'].map((name) => {
  const read = parsePatch(json(`demo/patches/${name}.fenvo.json`));
  if (!read.ok) throw new Error(name);
  return applyEdits(
    read.value,
    assignRack(read.value, rack).assigned.flatMap((a) => a.edits),
  );
});

const places = patches.map((patch) =>
  buildGraph(patch)
    .modules.flatMap((m) => m.outputs.slice(0, 1))
    .flatMap(({ socket }) => quantitiesAt(patch, socket).map((quantity) => ({ at: socket, quantity, knobs: [] }))),
);

let [told, within, all] = [0, 0, 0];
const times: number[] = [];
for (let seed = 1; seed <= RACKS; seed++) {
  const sessions = patches.map((patch, n): LogSession => {
    const meter = new SimulatedRack(patch, { seed, channels: channelLimits(patch, rack) });
    const read = places[n] ?? [];
    return {
      id: `s${n}`,
      started: '2026-03-01',
      patch,
      rack: rack.name,
      assignment: patch.modules.flatMap((m) => (m.rack === undefined ? [] : [{ module: m.id, rack: m.rack }])),
      readings: meter.readAll(read).map((value, i) => ({ ...(read[i] as (typeof read)[number]), value })),
    };
  });
  const began = performance.now();
  const found = calibrate(rack, { format: 'fenvo.log', version: 1, sessions });
  times.push(performance.now() - began);
  for (const { rack: channel, parameter, value, error } of found.channels) {
    const patch = patches.find((p) => p.modules.some((m) => m.rack === channel));
    const m = patch?.modules.find((x) => x.rack === channel);
    if (!patch || !m) continue;
    const truth = drawnTraits(m, traitsOf(m, patch.settings.bpm, channelLimits(patch, rack)), seed).get(parameter) ?? 0;
    told++;
    if (Math.abs(value - truth) <= 3 * error) within++;
    else if (process.env.FENVO_TELL) console.log(seed, channel, parameter, value, truth, (value - truth) / error);
  }
  all += found.channels.length + found.untold.length;
}
console.log(`${RACKS} simulated racks, three patches each`);
console.log(`  told: ${((100 * told) / all).toFixed(0)}% of all parameters, ${(told / RACKS).toFixed(1)} a rack`);
console.log(`  within three standard errors: ${((100 * within) / told).toFixed(1)}% (97%)`);
console.log(`  p50 ${quantile(times, 0.5).toFixed(0)} ms, p95 ${quantile(times, 0.95).toFixed(0)} ms`);
