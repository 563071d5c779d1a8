import { describe, expect, it } from 'vitest';
import { predict, simulate } from '@/core';
import { readingOf, storePatch } from './support/desk';
import { openPages } from './support/pages';

/** Whole plans, as a practitioner makes them: the end, the source, the chain between, the range, the findings. */
const { at } = openPages();

describe('plans from an empty desk', () => {
  it('a tremolo that is never shut', async () => {
    const { desk, page } = at;
    await desk.freshFromPatches();
    await desk.addEnd('vca.cv');
    await desk.feed('lfo');
    await desk.stage('vca');
    await page.click('[aria-label="Choose a source for In"]');
    await desk.choose('oscillator');
    await desk.stage('vca');
    await desk.plug('in', 'oscillator.sine');
    await desk.issues();
    await page.waitForSelector('::-p-xpath(//*[@data-finding="vca-shut"][contains(., "closed 50% of the time")])');
    await desk.insert('VCA', 'offset');
    await desk.type('amount', '0.4');
    await desk.type('volts', '3V');
    await page.waitForFunction(() => !document.querySelector('[data-finding=vca-shut]'));
    const patch = await desk.kept();
    await desk.readingIs('vca.cv', readingOf(patch, 'vca.cv'));
    const { readings, findings } = predict(patch);
    const reading = readings.find((r) => r.at === 'vca.cv')!;
    // 0.4·(±5 V) + 3 V is 1 to 5 V: a fifth of full, and full.
    expect(reading.low).toBeCloseTo(20 * Math.log10(1 / 5), 6);
    expect(reading.high).toBeCloseTo(0, 6);
    expect(reading.shutPercent).toBe(0);
    expect(findings.filter((f) => f.severity === 'error')).toEqual([]);
  });

  it('stereo movement from one depth knob', async () => {
    const { desk } = at;
    await desk.fresh();
    await desk.addEnd('vca.cv');
    await desk.feed('lfo');
    await desk.insert('VCA', 'attenuverter');
    await desk.type('amount', '0.5');
    await desk.insert('VCA', 'offset');
    await desk.type('volts', '2.5V');
    await desk.addEnd('vca.cv');
    await desk.feed('attenuverter.out');
    await desk.insert('VCA 2', 'offset');
    await desk.type('amount', '-1');
    await desk.type('volts', '2.5V');
    const both = async () => {
      const patch = await desk.kept();
      return ['vca.cv', 'vca2.cv'].map(
        (s) => predict(patch, { simulation: false }).readings.find((r) => r.at === s)!.driveVolts,
      );
    };
    expect(await both()).toEqual([
      [0, 5],
      [0, 5],
    ]);
    // One knob sets both, and where one is open the other is shut.
    await desk.end('vca.cv');
    await desk.stage('attenuverter');
    await desk.type('amount', '0.2');
    expect(await both()).toEqual([
      [1.5, 3.5],
      [1.5, 3.5],
    ]);
    const { traces } = simulate(await desk.kept(), { traces: ['offset.out', 'offset2.out'] });
    const [left, right] = [traces.get('offset.out')!, traces.get('offset2.out')!];
    left.forEach((v, k) => expect(Math.abs(v + right[k]! - 5)).toBeLessThan(1e-9));
  });

  it('ducking: the band makes room while the engine sounds', async () => {
    const { desk, page } = at;
    await desk.fresh();
    await desk.addEnd('vca.cv');
    await desk.feed('envelope');
    await desk.add('clock');
    await desk.stage('envelope');
    await desk.plug('gate', 'clock.out');
    await desk.insert('VCA', 'offset');
    await desk.type('amount', '-0.5');
    await desk.type('volts', '5V');
    await desk.add('oscillator');
    await desk.stage('vca');
    await desk.plug('in', 'oscillator.saw');
    await page.waitForSelector('::-p-xpath(//*[@data-reading="vca.cv"][contains(., "dB")])');
    const patch = await desk.kept();
    await desk.readingIs('vca.cv', readingOf(patch, 'vca.cv'));
    const reading = predict(patch).readings.find((r) => r.at === 'vca.cv')!;
    // Full while the envelope rests; 5 − 0.5·8 = 1 V at its peak.
    expect(reading.driveVolts).toEqual([1, 5]);
    expect(reading.seenDriveVolts![0]).toBeCloseTo(1, 2);
    expect(reading.shutPercent).toBe(0);
  });

  it('one fader to four ends, each with its own span and direction', async () => {
    const { desk } = at;
    await desk.fresh();
    const ends = ['filter.cutoff', 'vca.cv', 'delay.time', 'crossfade.cv'];
    await desk.addEnd(ends[0]!);
    await desk.feed('constant');
    for (const end of ends.slice(1)) {
      await desk.addEnd(end);
      await desk.feed('constant.out');
    }
    await desk.end('vca.cv');
    await desk.insert('VCA', 'offset');
    await desk.type('amount', '-1');
    await desk.type('volts', '5V');
    const readings = async (): Promise<string[]> => {
      const patch = await desk.kept();
      for (const end of ends) await desk.readingIs(end, readingOf(patch, end));
      return Promise.all(ends.map((end) => desk.reading(end)));
    };
    const atRest = await readings();
    await desk.stage('constant');
    await desk.type('volts', '2V');
    const moved = await readings();
    ends.forEach((end, i) => expect([end, moved[i]]).not.toEqual([end, atRest[i]]));
    // The frame says where else its output goes.
    const forks = await at.page.$eval('[data-frame=constant]', (e) => e.textContent);
    expect(forks).toContain('Also feeds');
  });

  it('a lag that turns a square into near-triangle, with make-up gain', async () => {
    const { desk, page } = at;
    await desk.fresh();
    await desk.addEnd('filter.cutoff');
    await desk.feed('lfo');
    await desk.set('shape', 'pulse');
    await desk.insert('Filter (VCF)', 'slew');
    await desk.type('rise', '1s');
    await desk.type('fall', '1s');
    await desk.issues();
    await page.waitForSelector('[data-finding=lag-short]');
    const swing = async (socket: string): Promise<number> => {
      const { min, max } = simulate(await desk.kept(), { traces: [] }).outputs.get(socket)!;
      return max - min;
    };
    const lagged = await swing('slew.out');
    expect(lagged).toBeLessThan(5);
    await desk.insert('Filter (VCF)', 'offset');
    await desk.set('maxAmount', '4');
    await desk.type('amount', String(Math.round((1000 * 10) / lagged) / 1000));
    expect(await swing('offset.out')).toBeCloseTo(10, 1);
    await page.waitForFunction(() => !document.querySelector('[data-finding=lag-short]'));
    // It goes straight up and straight down: half a period each way.
    const { traces, sampleRate } = simulate(await desk.kept(), { traces: ['offset.out'] });
    const trace = traces.get('offset.out')!;
    const [from, to] = [4.02, 4.48].map((t) => Math.round(t * sampleRate)) as [number, number];
    const steps = Array.from(trace.subarray(from, to), (v, k) => Math.abs(v - trace[from - 1 + k]!));
    expect(Math.max(...steps) / (steps.reduce((a, b) => a + b, 0) / steps.length)).toBeLessThan(1.2);
  });

  it('two passive mults flatten a pitch, and say by how many cents', async () => {
    const { desk, page } = at;
    await desk.fresh();
    await desk.addEnd('oscillator.pitch');
    await desk.feed('sequencer');
    await desk.add('clock');
    await desk.stage('sequencer');
    await desk.plug('clock', 'clock.out');
    await page.$eval('[data-stage] textarea', (e) => ((e as HTMLTextAreaElement).value = ''));
    await page.focus('[data-stage] textarea');
    await page.keyboard.type('0\n1\n2\n3');
    await page.click('::-p-xpath(//*[@data-stage]//button[text()="Set"])');
    await desk.section('hardware');
    await desk.fill('[aria-label^="Impedance of"][aria-label$=" CV"]', '1000');
    await page.keyboard.press('Enter');
    for (const id of ['mult', 'mult2']) {
      await desk.insert('Oscillator (VCO)', 'mult');
      await page.waitForSelector(`[data-stage=${id}]`);
      await desk.set('build', 'passive');
    }
    await desk.add('oscillator');
    await desk.plug('pitch', 'mult2.out2');
    const patch = await desk.kept();
    const own = predict(patch).findings.find((f) => f.code === 'loading')!;
    expect(own.message).toContain('cents');
    await desk.issues();
    await page.waitForSelector(`::-p-xpath(//*[@data-finding="loading"][contains(., "${own.message}")])`);
    // 1 kΩ into two loads of 100 kΩ: three octaves come out 3·12·(1 − 1/1.02) semitones flat.
    expect(own.numbers.cents).toBeCloseTo(3 * 1200 * (1 - 1 / 1.02), 0);
  });
});

describe('a patch of forty modules', () => {
  it('is edited by keyboard alone', async () => {
    const { desk, page } = at;
    const paths = Array.from({ length: 8 }, (_, p) => p);
    const forty = {
      format: 'fenvo.patch',
      version: 1,
      name: 'Forty',
      settings: { duration: 1 },
      modules: paths.flatMap((p) => [
        { id: `s${p}`, kind: 'lfo', label: `Swell ${p}` },
        { id: `a${p}`, kind: 'offset', label: `Trim ${p}`, params: { amount: 0.5 } },
        { id: `b${p}`, kind: 'inverter', label: `Flip ${p}` },
        { id: `c${p}`, kind: 'offset', label: `Lift ${p}`, params: { amount: 1, volts: 1 } },
        { id: `e${p}`, kind: 'filter', label: `Tone ${p}` },
      ]),
      cables: paths.flatMap((p) => [
        { from: `s${p}.out`, to: `a${p}.in` },
        { from: `a${p}.out`, to: `b${p}.in` },
        { from: `b${p}.out`, to: `c${p}.in` },
        { from: `c${p}.out`, to: `e${p}.cutoff` },
      ]),
    };
    await desk.open(await storePatch(at.url, forty));

    // The third end, its second frame, a stage before it, found by what it does.
    await desk.keys('3');
    await page.waitForSelector('[data-frame=e2]');
    await desk.keys('BracketLeft', 'BracketLeft', 'BracketLeft', 'BracketLeft');
    await page.waitForSelector('[data-stage=a2]');
    await desk.keys('i');
    await page.waitForSelector('[data-chooser] input:focus');
    await page.keyboard.type('glide');
    await page.waitForSelector('[data-frame=slew][data-proposed=true]');
    await desk.keys('Enter');
    await page.waitForSelector('[data-stage=slew]');
    expect(await desk.frames()).toEqual(['s2', 'slew', 'a2', 'b2', 'c2', 'e2']);

    // Its knob, then its place, then another kind in its place.
    await desk.keys('k');
    await page.waitForSelector('[data-stage=slew] [role=slider]:focus');
    await desk.keys('Enter');
    await page.keyboard.type('0.5s');
    await desk.keys('Enter');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await desk.keys('Alt+ArrowRight');
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('[data-frame]')].map((e) => e.getAttribute('data-frame')).join() ===
        's2,a2,slew,b2,c2,e2',
    );
    await desk.keys('BracketRight');
    await page.waitForSelector('[data-stage=b2]');
    await desk.keys('b');
    await page.waitForSelector('[data-frame=b2]', { hidden: true });
    await desk.keys('b');
    await page.waitForSelector('[data-frame=b2]');
    await desk.keys('r');
    await page.waitForSelector('[data-chooser] input:focus');
    await page.keyboard.type('attenuverter');
    await desk.keys('Enter');
    await page.waitForSelector('[data-chooser]', { hidden: true });

    // Elsewhere by name, removed, and brought back.
    await desk.keys('Control+k');
    await page.waitForSelector('[role=dialog] [data-chooser] input:focus');
    await page.keyboard.type('Tone 7');
    await desk.keys('Enter');
    await page.waitForSelector('[data-frame=e7]');
    await desk.keys('BracketLeft', 'Delete');
    await page.waitForSelector('[data-frame=c7]', { hidden: true });
    await desk.keys('Control+z');
    await page.waitForSelector('[data-frame=c7]');

    const patch = await desk.kept();
    expect(patch.modules).toHaveLength(41);
    expect(patch.modules.find((m) => m.id === 'slew')?.params?.rise).toBe(0.5);
    expect(patch.modules.find((m) => m.id === 'b2')).toMatchObject({ kind: 'attenuverter', label: 'Flip 2' });
    expect(patch.cables).toContainEqual({ from: 'slew.out', to: 'b2.in' });
    expect(patch.cables).toContainEqual({ from: 'c7.out', to: 'e7.cutoff' });
  });
});
