import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { predict } from '@/core';
import type { Patch } from '@/core';
import { storePatch } from './support/desk';
import { drawn } from './support/drawn';
import { openPages } from './support/pages';

const { at } = openPages();

type Params = Record<string, unknown>;

/** A patch in short, stored and opened. */
async function openNew(modules: Record<string, [string, Params?, object?]>, cables: string[], more: object = {}) {
  const id = await storePatch(at.url, {
    format: 'fenvo.patch',
    version: 1,
    name: 'Lamp room',
    settings: { duration: 2 },
    modules: Object.entries(modules).map(([name, [kind, params, rest]]) => ({
      id: name,
      kind,
      ...(params && { params }),
      ...rest,
    })),
    cables: cables.map((c) => ({ from: c.split(' > ')[0], to: c.split(' > ')[1] })),
    ...more,
  });
  await at.desk.openItself(id);
}

const sweep = (params: Params = {}, rest: object = {}) =>
  openNew(
    { swell: ['lfo'], trim: ['offset', params, rest], tone: ['filter', { cutoffHz: 200 }] },
    ['swell.out > trim.in', 'trim.out > tone.cutoff'],
    { targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 }] },
  );

const reading = (patch: Patch, socket: string) =>
  predict(patch, { simulation: false }).readings.find((r) => r.at === socket)!;
const params = (patch: Patch, id: string): Params => patch.modules.find((m) => m.id === id)!.params as Params;

async function solved(page: Page): Promise<void> {
  await at.desk.tab('destination');
  await at.desk.button('Solve for knob settings');
  await page.waitForSelector('[data-answer], [data-impossible]');
}

/** Takes the answer that moves exactly these knobs. */
async function take(page: Page, ...knobs: string[]): Promise<void> {
  const found = await page.$$eval('[data-answer]', (all) =>
    all.map((e) => [...e.querySelectorAll('[data-knob-to]')].map((k) => k.getAttribute('data-knob-to') ?? '')),
  );
  const index = found.findIndex((names) => names.length === knobs.length && knobs.every((k) => names.includes(k)));
  expect(found[index] ?? found).toEqual(expect.arrayContaining(knobs));
  const [button] = await page.$$(`[data-answer="${index + 1}"] button`);
  await button!.click();
}

describe('what is wanted', () => {
  it('gives the knobs, previews an answer, and takes it over as one edit', async () => {
    const { desk, page } = at;
    await sweep({ amount: 1, volts: 0 });
    expect(await page.$eval('[data-end="tone.cutoff"] [data-wanted]', (e) => e.textContent)).toMatch(
      /Off by \d+ cents/,
    );
    // The verdict proposes the knobs; held, they show on the dials of the stage that turns.
    await desk.stage('trim');
    await (await page.waitForSelector('[data-verdict] ::-p-xpath(.//button[text()="Preview"])'))!.hover();
    await page.waitForSelector('[data-proposed=true]');
    await page.waitForSelector('[data-stage=trim] [data-ghost]');
    await page.mouse.move(5, 5);
    await page.waitForSelector('[data-ghost]', { hidden: true });
    await solved(page);
    await page.hover('[data-answer="1"]');
    await page.waitForSelector('[data-proposed=true]');
    await page.mouse.move(5, 5);
    await page.waitForSelector('[data-proposed=true]', { hidden: true });
    await (await page.$('[data-answer="1"] button'))!.click();
    await page.waitForSelector('[data-end="tone.cutoff"] [data-wanted=true]');
    const { low, high } = reading(await desk.kept(), 'tone.cutoff');
    expect([low, high]).toEqual([expect.closeTo(200, 6), expect.closeTo(3200, 5)]);
    await desk.keys('Control+z');
    await page.waitForSelector('[data-end="tone.cutoff"] [data-wanted=false]');
    expect(params(await desk.kept(), 'trim')).toEqual({ amount: 1, volts: 0 });
  });

  it('follows a handle that is dragged: the knobs turn along, and one undo takes all of it back', async () => {
    const { desk, page } = at;
    await sweep({ amount: 0.4, volts: 2 });
    const before = await desk.stored();
    const box = await (await page.$('[data-handle=high]'))!.boundingBox();
    const [x, y] = [box!.x + box!.width / 2, box!.y + box!.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= 12; i++) {
      await page.mouse.move(x, y + 4 * i);
      await drawn(page);
    }
    await page.waitForSelector('[data-end="tone.cutoff"] [data-wanted=true]');
    await page.mouse.up();
    const patch = await desk.kept();
    const [target] = patch.targets as readonly { high: number; low: number }[];
    expect(target!.high).toBeLessThan(3000);
    const { low, high } = reading(patch, 'tone.cutoff');
    expect(high! / target!.high).toBeCloseTo(1, 5);
    expect(low! / target!.low).toBeCloseTo(1, 5);
    await desk.keys('Control+z');
    await page.waitForFunction(
      () => document.querySelector('[data-handle=high]')?.getAttribute('aria-valuetext') === '3.20\u00a0kHz',
    );
    const back = await desk.kept();
    expect([back.modules, back.targets]).toEqual([before.modules, before.targets]);
  });

  it('goes by keys alone: a choice in words, a handle by + and −, the knobs, an answer', async () => {
    const { desk, page } = at;
    await openNew({ swell: ['lfo'], trim: ['offset', { amount: 0.2 }], tone: ['filter', { cutoffHz: 400 }] }, [
      'swell.out > trim.in',
      'trim.out > tone.cutoff',
    ]);
    await page.focus('[role=combobox][aria-label^="Add a target for"]');
    await desk.keys('Enter');
    await page.waitForSelector('[role=listbox]');
    await desk.keys('ArrowDown', 'Enter');
    await page.waitForSelector('[data-target="tone.cutoff"] [data-met=true]');
    await page.$eval('[data-handle=high]', (e) => (e as SVGElement).focus());
    const text = () => page.$eval('[data-handle=high]', (e) => e.getAttribute('aria-valuetext'));
    const first = await text();
    for (let i = 0; i < 3; i++) await page.keyboard.press('+');
    await page.waitForFunction(
      (t) => document.querySelector('[data-handle=high]')?.getAttribute('aria-valuetext') !== t,
      {},
      first,
    );
    await page.waitForSelector('[data-target="tone.cutoff"] [data-met=true]');
    // Each press is followed by an answer of its own; the last one counts.
    const octaves = async () => Math.log2(reading(await desk.kept(), 'tone.cutoff').high! / 800);
    await expect.poll(octaves, { timeout: 15_000 }).toBeCloseTo(0.15, 2);
  });

  it('sets two ends of one source against each other by one depth', async () => {
    const { desk, page } = at;
    await openNew(
      {
        swell: ['lfo'],
        left: ['attenuverter', { amount: 0.3 }, { locked: ['amount'] }],
        right: ['attenuverter', { amount: 0.1 }],
        port: ['filter', {}, { locked: ['cutoffAmount'] }],
        star: ['filter', {}, { locked: ['cutoffAmount'] }],
      },
      ['swell.out > left.in', 'swell.out > right.in', 'left.out > port.cutoff', 'right.out > star.cutoff'],
    );
    await desk.end('port.cutoff');
    const label = await page.$eval('[role=combobox][aria-label^="Add a target for"]', (e) =>
      e.getAttribute('aria-label')!,
    );
    await desk.select(label, 'opposite star.cutoff');
    await page.waitForSelector('[data-target="port.cutoff"] [data-met=false]');
    await solved(page);
    await take(page, 'right.amount');
    await page.waitForSelector('[data-target="port.cutoff"] [data-met=true]');
    expect(params(await desk.kept(), 'right').amount).toBeCloseTo(-0.3, 9);
  });

  it('takes the noise of a module, and solves for how far a level dips', async () => {
    const { desk, page } = at;
    await openNew(
      {
        voice: ['oscillator', { baseHz: 400 }],
        swell: ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: -4, highVolts: 0 }],
        trim: ['offset', { amount: 0.2, volts: 5 }],
        amp: ['vca', {}, { label: 'Amp' }],
        out: ['lineOut'],
      },
      ['voice.sine > amp.in', 'swell.out > trim.in', 'trim.out > amp.cv', 'amp.out > out.left'],
    );
    await desk.end('amp.cv');
    await desk.stage('amp');
    await desk.section('hardware');
    await desk.fill('[aria-label="Output noise of Amp"]', '200');
    await desk.keys('Enter');
    expect((await desk.kept()).modules.find((m) => m.id === 'amp')).toMatchObject({ noiseMicrovolts: 200 });
    await desk.end('out.left');
    const label = await page.$eval('[role=combobox][aria-label^="Add a target for"]', (e) =>
      e.getAttribute('aria-label')!,
    );
    await desk.select(label, 'dip');
    await page.waitForSelector('[data-target="out.left"] [data-met=false]');
    await page.waitForSelector('::-p-xpath(//*[@data-verdict][contains(., "Target missed: 10.5\u00a0dB off")])');
    await solved(page);
    await (await page.$('[data-answer="1"] button'))!.click();
    await page.waitForSelector('[data-target="out.left"] [data-met=true]');
    const dip = predict(await desk.kept(), { cures: false }).levels!['amp.out']!.dipDb!;
    expect(Math.abs(dip - 12)).toBeLessThan(0.1);
  });

  it('keeps an amplifier from ever shutting', async () => {
    const { desk, page } = at;
    await openNew(
      { swell: ['lfo', { lowVolts: -5, highVolts: 5 }], voice: ['oscillator'], amp: ['vca', { bias: 0 }] },
      ['swell.out > amp.cv', 'voice.saw > amp.in'],
    );
    await desk.end('amp.cv');
    const label = await page.$eval('[role=combobox][aria-label^="Add a target for"]', (e) =>
      e.getAttribute('aria-label')!,
    );
    await desk.select(label, 'never shut');
    await solved(page);
    await (await page.$('[data-answer="1"] button'))!.click();
    await page.waitForSelector('[data-end="amp.cv"] [data-wanted=true]');
    const { low, high } = reading(await desk.kept(), 'amp.cv');
    expect(low).toBeGreaterThanOrEqual(-24 - 1e-6);
    expect(high).toBeLessThanOrEqual(1e-6);
  });

  it('says which knob runs out, and does what it suggests', async () => {
    const { desk, page } = at;
    await openNew(
      {
        swell: ['lfo'],
        trim: ['offset', { amount: 0.4 }],
        tone: ['filter', { cutoffHz: 640 }, { locked: ['cutoffAmount', 'cutoffHz'] }],
      },
      ['swell.out > trim.in', 'trim.out > tone.cutoff'],
      { targets: [{ at: 'tone.cutoff', quantity: 'volts', low: -8, high: 8 }] },
    );
    await solved(page);
    expect(await page.$eval('[data-limit="trim.amount"]', (e) => e.textContent)).toMatch(
      /stops at 1\.00; it would need 1\.60 \(0\.60 more\)/,
    );
    expect(await page.$eval('[data-suggestion]', (e) => e.textContent)).toMatch(
      /^Set Scale and offset gain range to 2, then Scale and offset gain to 1\.600: Scale and offset gain is short by 0\.60\./,
    );
    await desk.button('Apply this change');
    await page.waitForSelector('[data-end="tone.cutoff"] [data-wanted=true]');
    const patch = await desk.kept();
    expect(params(patch, 'trim')).toMatchObject({ maxAmount: 2 });
    expect(reading(patch, 'tone.cutoff').driveVolts).toEqual([expect.closeTo(-8, 9), expect.closeTo(8, 9)]);
  });

  it('turns no knob that is locked', async () => {
    const { desk, page } = at;
    await sweep({ amount: 0.7, volts: 1 }, { locked: ['amount'] });
    await solved(page);
    const moved = await page.$$eval('[data-knob-to]', (all) => all.map((e) => e.getAttribute('data-knob-to')));
    expect(moved.length).toBeGreaterThan(0);
    expect(moved).not.toContain('trim.amount');
    await (await page.$('[data-answer="1"] button'))!.click();
    await page.waitForSelector('[data-end="tone.cutoff"] [data-wanted=true]');
    expect(params(await desk.kept(), 'trim').amount).toBe(0.7);
  });

  it('holds the rest: one knob is turned, the others keep the range', async () => {
    const { desk, page } = at;
    await sweep({ amount: 0.4, volts: 2 });
    await page.click('::-p-xpath(//label[contains(., "Keep targets met")])');
    await desk.stage('trim');
    await desk.type('volts', '1.5V');
    await page.waitForFunction(() => document.querySelector('[data-end="tone.cutoff"] [data-wanted=true]'));
    const patch = await desk.kept();
    expect(params(patch, 'trim').volts).toBe(1.5);
    const { low, high } = reading(patch, 'tone.cutoff');
    expect([low, high]).toEqual([expect.closeTo(200, 4), expect.closeTo(3200, 3)]);
    await desk.keys('Control+z');
    await page.waitForFunction(
      (knob) => document.querySelector(knob)?.getAttribute('aria-valuetext')?.startsWith('+2.00'),
      {},
      desk.knob('volts'),
    );
    expect(params(await desk.kept(), 'trim')).toEqual({ amount: 0.4, volts: 2 });
  });

  it('draws how far off a hand is, and names the knob that makes most of it', async () => {
    const { desk, page } = at;
    await sweep({ amount: 0.4, volts: 2 });
    await desk.tab('destination');
    await desk.section('spread');
    await desk.button('Run 2000 trials');
    await page.waitForSelector('[data-spread="tone.cutoff"] .recharts-bar-rectangle');
    const [first] = await page.$$eval('[aria-label="Contribution of each knob"] tbody tr', (all) =>
      all.map((e) => e.textContent ?? ''),
    );
    expect(first).toMatch(/^(Filter \(VCF\) cutoff|Scale and offset (offset|gain))/);
  });

  it('sets an amplifier in one go, from silence to unity', async () => {
    const { desk, page } = at;
    await openNew({ swell: ['lfo'], voice: ['oscillator'], amp: ['vca'] }, [
      'swell.out > amp.cv',
      'voice.saw > amp.in',
    ]);
    await desk.end('amp.cv');
    await desk.stage('amp');
    await desk.button('Auto-set…');
    await (await page.waitForSelector('[data-helper="rest to full"] button'))!.click();
    await desk.readingIs('amp.cv', '-∞ to 0.0\u00a0dB'.replace('-', '\u2212'));
    expect(reading(await desk.kept(), 'amp.cv').driveVolts).toEqual([expect.closeTo(0, 6), expect.closeTo(5, 6)]);
  });
});
