import { describe, expect, it } from 'vitest';
import { demoPatches } from '../../demo/patches';
import { predict } from '../answers/predict';
import { tolerance } from '../answers/tolerance';
import { parsePatch } from '../document/parse';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { assignRack } from '../plan/assign';
import { goalRequest } from '../plan/goal';
import { printRack } from '../document/printRack';
import { outputEdits } from '../plan/output';
import { followed, orderFault, standing } from '../testing/followSheet';
import { patchOf } from '../testing/patch';
import { noteOfHz } from '../units/pitch';
import { rackOf } from '../testing/racks';
import { randomPatch } from '../testing/randomPatch';
import type { Patch } from '../document/types';
import { sheetToCsv } from './csv';
import { sheetToMarkdown } from './markdown';
import { patchPicture } from './picture';
import { soundOf } from '../graph/sound';
import { sheetOf } from './sheet';
import type { Sheet, SheetStep } from './types';

const breathing = patchOf(
  {
    swell: ['lfo', { shape: 'triangle', rateHz: 0.25 }, { label: 'Slow swell' }],
    trim: ['offset', { amount: 0.4, volts: 2 }, { label: 'Trim' }],
    voice: ['oscillator'],
    tone: ['filter', { cutoffHz: 220 }],
    out: ['lineOut'],
  },
  ['swell.out > trim.in', 'trim.out > tone.cutoff', 'voice.saw > tone.in', 'tone.lowpass > out.left'],
  { duration: 4 },
  { normals: [{ to: 'trim.in', volts: 5 }] },
);
const step = (sheet: Sheet, id: string): SheetStep => sheet.steps.find((s) => s.id === id)!;
const meter = (sheet: Sheet, id: string) => {
  const found = step(sheet, id);
  return found.do === 'measure' ? Object.fromEntries(found.expect.meter.map((m) => [m.quantity, m.value])) : {};
};

/** Loops, copies and what a sound passes need not be measured. */
function exemptIn(patch: Patch): (socket: string) => boolean {
  const graph = buildGraph(patch);
  const looped = new Set(graph.groups.filter((g) => g.loop).flatMap((g) => g.modules.map((i) => graph.modules[i]!.id)));
  const { modules } = soundOf(graph);
  return (socket) => looped.has(socket.split('.')[0]!) || modules.has(socket.split('.')[0]!);
}

describe('a sheet', () => {
  const sheet = sheetOf(breathing);

  it('sets, plugs and measures in an order that can be checked as it grows', () => {
    expect(sheet.steps.map((s) => s.id)).toEqual([
      'note-levels-down',
      'note-tone.resonance-down',
      'set-voice',
      'measure-voice.saw',
      'set-tone',
      'plug-voice.saw-tone.in',
      'set-out',
      'plug-tone.lowpass-out.left',
      'set-swell',
      'measure-swell.out',
      'set-trim',
      'plug-swell.out-trim.in',
      'measure-trim.out',
      'plug-trim.out-tone.cutoff',
      'listen-tone.cutoff',
      'note-levels-up',
    ]);
    expect(orderFault(breathing, sheet, exemptIn(breathing))).toBeNull();
    expect(sheet.steps.map((s) => s.part)).toContain('path tone.cutoff');
  });

  it('tells knobs by clock position, and the normal that a plug ends', () => {
    expect(step(sheet, 'set-trim')).toMatchObject({
      knobs: [
        { param: 'amount', value: 0.4, percent: 70, clock: '2:00' },
        { param: 'volts', value: 2, percent: 70, clock: '2:00' },
      ],
    });
    expect(step(sheet, 'set-trim').text).toContain('gain 2:00, offset 2:00');
    expect(step(sheet, 'plug-swell.out-trim.in')).toMatchObject({
      breaks: [{ to: 'trim.in', volts: 5 }],
      split: false,
    });
  });

  it('tells what the instrument shows, of the patch as it is plugged by then', () => {
    expect(meter(sheet, 'measure-swell.out')).toEqual({
      low: expect.closeTo(-5, 2),
      high: expect.closeTo(5, 2),
      mean: expect.closeTo(0, 2),
    });
    expect(meter(sheet, 'measure-trim.out')).toEqual({
      low: expect.closeTo(0, 2),
      high: expect.closeTo(4, 2),
      mean: expect.closeTo(2, 2),
    });
    // A saw of ±5 V: 5/√3 on an AC meter.
    expect(meter(sheet, 'measure-voice.saw').rms).toBeCloseTo(5 / Math.sqrt(3), 1);
    const listened = step(sheet, 'listen-tone.cutoff');
    expect(listened.do === 'listen' && listened.expect).toMatchObject({ unit: 'Hz', low: expect.closeTo(220, 0) });
    expect(listened.text).toContain('dark');
  });

  it('has its ear listen for what arrives behind a lag, by the note of that frequency', () => {
    const lagged = patchOf(
      {
        swell: ['lfo', { shape: 'sine', rateHz: 1, lowVolts: 0, highVolts: 2 }],
        lag: ['slew', { law: 'rc', rise: 1, fall: 1 }],
        voice: ['oscillator', { baseHz: 55 }],
        out: ['lineOut'],
      },
      ['swell.out > lag.in', 'lag.out > voice.pitch', 'voice.saw > out.left'],
      { duration: 12, sampleRate: 8000 },
    );
    // 1 V ± 1/√(1 + (ωτ)²), with 99.3 % in a second, which is five τ.
    const swing = 1 / Math.hypot(1, (2 * Math.PI) / 5);
    const listened = step(sheetOf(lagged), 'listen-voice.pitch');
    if (listened.do !== 'listen') throw new Error('nothing to listen for');
    expect(listened.expect.low! / (110 * 2 ** -swing)).toBeCloseTo(1, 2);
    expect(listened.expect.high! / (110 * 2 ** swing)).toBeCloseTo(1, 2);
    expect(listened.expect.low!).toBeGreaterThan(60);
    const [low, high] = [listened.expect.low!, listened.expect.high!].map((hz) => noteOfHz(hz).name);
    expect(listened.text).toContain(low);
    expect(listened.text).toContain(high);
  });

  it('allows what the patch’s own errors make, and the instrument’s', () => {
    const found = step(sheet, 'measure-trim.out');
    const low = found.do === 'measure' ? found.expect.meter[0]! : null;
    const alone = { ...breathing, cables: breathing.cables.filter((c) => c.to === 'trim.in') };
    const [a, b] = tolerance(alone, { only: ['trim.out'] }).outputs['trim.out']!.min;
    expect(low!.plusMinus).toBeGreaterThan(0.7 * (b - a));
    expect(low!.plusMinus).toBeLessThan(1.4 * (b - a) + 0.02);
  });

  it('reads gates and steady voltages as such', () => {
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 120, width: 0.25 }],
        hold: ['constant', { volts: 1.5 }],
        env: ['envelope'],
        amp: ['vca'],
      },
      ['beat.out > env.gate', 'env.out > amp.cv', 'hold.out > amp.in'],
      { duration: 4 },
    );
    const gates = sheetOf(patch);
    expect(meter(gates, 'measure-beat.out')).toEqual({
      low: 0,
      high: 5,
      percent: expect.closeTo(25, 0),
      pulses: expect.closeTo(2, 2),
    });
    expect(meter(gates, 'measure-hold.out')).toEqual({ steady: expect.closeTo(1.5, 6) });
  });

  it('reads a row of two voltages as a slow voltage, not as a gate', () => {
    const steps = [0, 2].map((volts) => ({ volts, gate: true, tie: false }));
    const patch = patchOf(
      { beat: ['clock', { bpm: 60 }], row: ['sequencer', { steps }], tone: ['oscillator'] },
      ['beat.out > row.clock', 'row.cv > tone.pitch'],
      { duration: 4 },
    );
    expect(Object.keys(meter(sheetOf(patch), 'measure-row.cv'))).toEqual(['low', 'high', 'mean']);
  });

  it('on a rack speaks of its channels, of stand-ins and of what is short', () => {
    const rack = rackOf({
      osc: { a: 'lfo', b: 'oscillator' },
      mix: {
        a: {
          kind: 'mixer',
          fixed: { inputs: 2 },
          knobs: {
            gain1: {
              scale: [0, 10],
              points: [
                [0, 0],
                [0.5, 2],
                [1, 10],
              ],
            },
          },
        },
      },
      tone: { a: 'filter' },
    });
    const found = sheetOf(breathing, { rack });
    expect(found.needs.modules.find((m) => m.module === 'trim')).toMatchObject({ kind: 'mixer', rack: 'mix/a' });
    expect(found.needs.modules.find((m) => m.module === 'trim')!.standIn).toContain('bias');
    expect(found.needs.short).toEqual([]);
    const trim = step(found, 'set-trim');
    const gain = trim.do === 'set' ? trim.knobs.find((k) => k.param === 'gain1')! : null;
    // 0.4 of a panel of 0 to 10 is 4, a quarter of the way from 2 at noon to 10 at the end.
    expect(gain).toMatchObject({ value: 0.4, panel: 4, percent: 62.5 });
    const after = applyEdits(
      breathing,
      assignRack(breathing, rack).assigned.flatMap((a) => a.edits),
    );
    expect(followed(found)).toEqual(standing(after));
    const bare = sheetOf(breathing, { rack: rackOf({ x: { a: 'lfo' } }) });
    expect(bare.needs.short.map((s) => s.module)).toEqual(['trim', 'voice', 'tone']);
  });

  it('keeps its ids against edits elsewhere', () => {
    const more = applyEdits(breathing, [{ do: 'add', module: { id: 'late', kind: 'slew' } }]);
    const ids = new Set(sheetOf(more).steps.map((s) => s.id));
    for (const s of sheet.steps) expect(ids.has(s.id)).toBe(true);
    expect(ids.has('set-late')).toBe(true);
  });

  it('is pictured whole: each path with its frames and what arrives', () => {
    const svg = patchPicture({ ...breathing, name: 'Fog & <bank>' });
    for (const text of ['Slow swell', 'Trim', 'Filter', '+4.00', 'Fog &#38; &#60;bank&#62;'])
      expect(svg).toContain(text);
    expect(svg).toContain('3.52');
    expect(svg).not.toMatch(/NaN|Infinity|href/);
  });

  it('is written as Markdown and as a table', () => {
    const text = sheetToMarkdown(sheet);
    expect(text).toContain('## Control path to Filter (VCF) cutoff CV');
    expect(text.match(/- \[ \]/g)).toHaveLength(sheet.steps.length);
    const csv = sheetToCsv(sheet).trimEnd().split('\n');
    expect(csv[0]).toBe('id,part,do,text,from,to,at,quantity,value,plusminus,unit');
    expect(csv.filter((l) => l.startsWith('measure-trim.out'))).toHaveLength(3);
  });

  it.each(demoPatches('demo/patches').map((d) => [d.id, d.document] as const))(
    'of %s leads to the very patch',
    (_, doc) => {
      const read = parsePatch(doc);
      if (!read.ok) throw new Error('a demo patch must be read');
      const patch = { ...read.value, settings: { ...read.value.settings, duration: 0.5 } };
      const found = sheetOf(patch);
      expect(followed(found)).toEqual(standing(patch));
      expect(orderFault(patch, found, exemptIn(patch))).toBeNull();
    },
  );

  it.each(Array.from({ length: 24 }, (_, i) => 7000 + i))('of random patch %i leads to the very patch', (seed) => {
    const patch = randomPatch(seed, { duration: 0.05, modules: 2 + (seed % 9) });
    const found = sheetOf(patch);
    expect(followed(found)).toEqual(standing(patch));
    expect(orderFault(patch, found, exemptIn(patch))).toBeNull();
    for (const s of found.steps)
      if (s.do === 'measure') for (const m of s.expect.meter) expect(Number.isFinite(m.value + m.plusMinus)).toBe(true);
  });
});

describe('a sheet as a table', () => {
  it('begins no cell of text as a formula', () => {
    const patch = patchOf(
      { swell: ['lfo', {}, { label: '=HYPERLINK("x")' }], x: ['parameter', {}, { label: '@sum' }] },
      ['swell.out > x.cv'],
    );
    const table = sheetToCsv(sheetOf(patch));
    expect(table).not.toMatch(/(^|,)"?[=@+]/m);
    expect(table).toContain('-5');
  });
});

describe('a sheet is told by what is there', () => {
  const ids = (sheet: Sheet): string[] => sheet.steps.map((s) => s.id);

  it('plugs what a normal of the patch does and the rack’s channels do not', () => {
    const patch = patchOf(
      { swell: ['lfo'], trim: ['attenuverter', { amount: 0.5 }], tone: ['parameter'] },
      ['trim.out > tone.cv'],
      { duration: 2 },
      { normals: [{ to: 'trim.in', from: 'swell.out' }] },
    );
    const rack = rackOf({ osc: { a: 'lfo' }, att: { a: 'attenuverter' } });
    expect(ids(sheetOf(patch))).not.toContain('plug-swell.out-trim.in');
    const sheet = sheetOf(patch, { rack });
    expect(ids(sheet)).toContain('plug-swell.out-trim.in');
    expect(ids(sheet).indexOf('plug-swell.out-trim.in')).toBeLessThan(ids(sheet).indexOf('measure-trim.out'));
    expect(sheet.needs.cables).toBe(2);
  });

  it('measures behind a normal that the patch has, with no plug for it', () => {
    const patch = patchOf(
      { swell: ['lfo'], trim: ['attenuverter', { amount: 0.5 }], tone: ['parameter'] },
      ['trim.out > tone.cv'],
      { duration: 2 },
      { normals: [{ to: 'trim.in', from: 'swell.out' }] },
    );
    const sheet = sheetOf(patch);
    expect(meter(sheet, 'measure-trim.out')).toMatchObject({
      low: expect.closeTo(-2.5, 2),
      high: expect.closeTo(2.5, 2),
    });
    expect(sheet.needs.cables).toBe(1);
  });

  it('counts a gate as the prediction does', () => {
    const steps = [true, true, false, true, false, false, false, false].map((gate) => ({ volts: 0, gate, tie: false }));
    const patch = patchOf(
      { beat: ['clock', { bpm: 240, width: 0.5 }], row: ['sequencer', { steps }], env: ['envelope'] },
      ['beat.out > row.clock', 'row.gate > env.gate'],
      { duration: 2 },
    );
    const reading = predict(patch).readings.find((r) => r.at === 'env.gate')!;
    const gate = meter(sheetOf(patch), 'measure-row.gate');
    expect(gate.percent).toBeCloseTo(reading.highPercent!, 9);
    expect(gate.pulses).toBeCloseTo(reading.low!, 9);
  });

  it('allows a mean its own spread, not that of the extremes', () => {
    const patch = patchOf(
      { swell: ['lfo', { rateHz: 1 }], trim: ['offset', { amount: 1, maxAmount: 4, volts: 0 }], x: ['parameter'] },
      ['swell.out > trim.in', 'trim.out > x.cv'],
      { duration: 2 },
    );
    const found = step(sheetOf(patch), 'measure-trim.out');
    const of = (quantity: string): number =>
      found.do === 'measure' ? found.expect.meter.find((m) => m.quantity === quantity)!.plusMinus : NaN;
    // The amount's error of 1% of ±4 moves the extremes by ±0.4 V and the mean of a triangle not at all: what is left
    // is the offset's 1% of 10 V and the offsets of two outputs.
    expect(of('high')).toBeGreaterThan(1);
    expect(of('mean')).toBeLessThan(0.5);
    expect(of('mean')).toBeGreaterThan(0.2);
  });

  it('gives a mixer’s bias no error where most mixers have none', () => {
    const patch = patchOf(
      { hold: ['lfo', { lowVolts: 0, highVolts: 1 }], mix: ['mixer', { inputs: 2 }], x: ['parameter'] },
      ['hold.out > mix.in1', 'mix.out > x.cv'],
    );
    expect(tolerance(patch).outputs['mix.out']!.max[0]).toBeGreaterThan(0.95);
    const channels = { limits: new Map([['mix.biasVolts', [-5, 5] as const]]) };
    expect(tolerance(patch, { channels }).outputs['mix.out']!.max[0]).toBeLessThan(0.9);
    const set = step(sheetOf(patch), 'set-mix');
    expect(set.do === 'set' && set.knobs.map((k) => k.param)).not.toContain('biasVolts');
  });

  it('sets every module of a loop before anything is plugged into it or out of it', () => {
    const patch = patchOf(
      { a: ['mixer', { inputs: 2 }], b: ['slew'], c: ['attenuator', { amount: 0.5 }], swell: ['lfo'] },
      ['swell.out > a.in1', 'a.out > b.in', 'b.out > c.in', 'c.out > a.in2'],
      { duration: 0.5 },
    );
    const order = ids(sheetOf(patch));
    for (const s of sheetOf(patch).steps) {
      if (s.do !== 'plug') continue;
      for (const socket of [s.cable.from, s.cable.to])
        expect(order.indexOf(`set-${socket.split('.')[0]}`)).toBeLessThan(order.indexOf(s.id));
    }
  });

  it('has for a module without cables a part that is a socket, and none for what is bypassed', () => {
    const patch = patchOf({ swell: ['lfo'], trim: ['offset'] }, [], { duration: 0.5 });
    expect(sheetOf(patch).steps.map((s) => s.part)).toEqual(['path swell.rate', 'path trim.in']);
    const aside = { ...patch, bypassed: [{ module: 'trim', cables: [] }] };
    expect(ids(sheetOf(aside))).toEqual(['set-swell']);
    expect(sheetOf(aside).needs.modules.map((m) => m.module)).toEqual(['swell']);
    const rack = rackOf({ osc: { a: 'lfo' } });
    expect(assignRack(aside, rack).short).toEqual([]);
  });

  it('says that a sound goes nowhere, and leads it out where a goal makes the patch', () => {
    const patch = patchOf({ voice: ['oscillator'], tone: ['filter'] }, ['voice.saw > tone.in'], { duration: 0.2 });
    expect(sheetOf(patch).steps.at(-1)).toMatchObject({ id: 'note-no-output', part: 'last' });
    const led = applyEdits(patch, outputEdits(patch));
    expect(led.cables).toContainEqual({ from: 'tone.lowpass', to: 'out.left' });
    expect(sheetOf(led).steps.at(-1)).toMatchObject({ id: 'note-levels-up' });
    expect(outputEdits(led)).toEqual([]);
    const goal = goalRequest({
      kind: 'filter',
      socket: 'cutoff',
      by: 'lfo',
      wish: { quantity: 'frequency', low: 200, high: 800 },
    });
    expect(goal!.patch!.modules.map((m) => m.kind)).toContain('lineOut');
  });
});

describe('a time knob with printed figures of its own', () => {
  it('is told by the figure that is printed for its time, on the sheet and in answers', () => {
    const points = [
      [0.3, 2, 0.02],
      [0.5, 5, 0.1],
      [0.8, 8, 2],
    ];
    const rack = rackOf({
      shaper: { a: { kind: 'slew', ranges: { rise: [0.001, 10] }, knobs: { rise: { scale: [0, 10], points } } } },
    });
    const patch = patchOf({ l: ['lfo'], s: ['slew', { rise: 0.1 }, { rack: 'shaper/a' }], p: ['parameter'] }, [
      'l.out > s.in',
      's.out > p.cv',
    ]);
    const { steps } = sheetOf(patch, { rack });
    const knobs = steps.flatMap((step) => (step.do === 'set' ? step.knobs : []));
    expect(knobs.find((k) => k.param === 'rise')).toMatchObject({ panel: 5, percent: expect.closeTo(50, 6) });
    expect(printRack(rack)).toMatchObject({ modules: [{ channels: [{ knobs: { rise: { points } } }] }] });
  });
});
