import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { applyEdits, parsePatch, printPatch } from '@/core';
import type { Patch } from '@/core';
import { storePatch } from './support/desk';
import type { DeskDriver } from './support/desk';
import { openPages } from './support/pages';
import { hearFor, heardAudio, suspendDevice, tapAudio, tappedSamples } from './support/tap';

const { at } = openPages();

const read = (document: object): Patch => {
  const result = parsePatch({ format: 'fenvo.patch', version: 1, ...document });
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.value;
};
/** A fader opens an amplifier on a tone. */
const swell = read({
  name: 'Tide tone',
  modules: [
    { id: 'tone', kind: 'oscillator', label: 'Tone', params: { baseHz: 500 } },
    { id: 'tide', kind: 'constant', label: 'Tide', params: { lowVolts: 0, highVolts: 5, volts: 1 } },
    { id: 'slow', kind: 'lfo', label: 'Slow', params: { rateHz: 2, lowVolts: -1, highVolts: 1 } },
    { id: 'mix', kind: 'mixer', label: 'Sum', params: { gain2: 0 } },
    { id: 'amp', kind: 'vca', label: 'Amp', params: { cvAmount: 1 } },
    { id: 'low', kind: 'oscillator', label: 'Low tone', params: { baseHz: 125 } },
  ],
  cables: [
    { from: 'tone.sine', to: 'amp.in' },
    { from: 'tide.out', to: 'mix.in1' },
    { from: 'slow.out', to: 'mix.in2' },
    { from: 'mix.out', to: 'amp.cv' },
  ],
});

/** A clock strikes a decaying envelope that opens a tone. */
const struck = read({
  name: 'Bell buoy',
  modules: [
    { id: 'clock', kind: 'clock', params: { bpm: 150 } },
    { id: 'shape', kind: 'envelope', params: { mode: 'ad', attack: 0.002, decay: 0.15 } },
    { id: 'tone', kind: 'oscillator', params: { baseHz: 1000 } },
    { id: 'amp', kind: 'vca', label: 'Amp', params: { cvAmount: 1 } },
  ],
  cables: [
    { from: 'clock.out', to: 'shape.gate' },
    { from: 'tone.sine', to: 'amp.in' },
    { from: 'shape.out', to: 'amp.cv' },
  ],
});

/** Plays a patch in an editor of its own, every sample overheard, at full level. */
async function play(patch: Patch): Promise<{ page: Page; desk: DeskDriver }> {
  const { page, desk } = await at.ownPage();
  await tapAudio(page);
  await desk.patches();
  await desk.keep({ cared: true, guide: 'off' });
  await desk.openItself(await storePatch(at.url, printPatch(patch)));
  await page.keyboard.press('Space');
  await page.waitForSelector('[data-live=playing]');
  await page.focus('input[aria-label="Listening level"]');
  await page.keyboard.press('End');
  await hearFor(page, 0.5);
  return { page, desk };
}

const peak = (x: readonly number[]): number => x.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
const steepest = (x: readonly number[]): number =>
  x.slice(1).reduce((most, v, i) => Math.max(most, Math.abs(v - x[i]!)), 0);
/** A steady stretch of what is heard, once all glides are over. */
async function steady(page: Page, seconds = 0.3) {
  await hearFor(page, 0.2);
  const from = await tappedSamples(page);
  await hearFor(page, seconds);
  return heardAudio(page, from);
}
const dbOf = (a: number, b: number): number => 20 * Math.log10(a / b);
/** Waits until an ear is so loud, of full scale: what was asked for may need a moment. */
const isHeard = (page: Page, ear: 'left' | 'right', loud: number) =>
  expect.poll(async () => dbOf(peak((await steady(page, 0.2))[ear]), loud), { timeout: 15_000 }).toBeCloseTo(0, 1);
/** The power of a tone in a stretch. */
function tonePeak({ left, rate }: { left: readonly number[]; rate: number }, hz: number): number {
  let [re, im] = [0, 0];
  left.forEach((v, i) => {
    const window = 1 - Math.cos((2 * Math.PI * i) / left.length);
    re += v * window * Math.cos((2 * Math.PI * hz * i) / rate);
    im += v * window * Math.sin((2 * Math.PI * hz * i) / rate);
  });
  return (2 * Math.hypot(re, im)) / left.length;
}
const panel = (page: Page) =>
  page.click('::-p-xpath(//*[@data-live]//button[starts-with(normalize-space(.), "Listening")])');

describe('what the page’s own audio is', () => {
  it('is as loud as its meter says, muted, balanced, with a voltage as a tone beside it, and looped', async () => {
    const { page, desk } = await play(swell);
    // A fifth of 5 V, a tenth of full scale a volt.
    await isHeard(page, 'left', 0.1);
    const shown = await page.$eval('[data-figure=peak]', (e) => e.textContent!.replace('\u2212', '-'));
    expect(Number(/-?[\d.]+/.exec(shown)![0])).toBeCloseTo(-20, 0);
    await panel(page);
    await page.click('[aria-label="Mute Amp CV"]');
    await expect.poll(async () => peak((await steady(page, 0.2)).left), { timeout: 15_000 }).toBeLessThan(1e-4);
    await desk.button('Unmute all');
    await isHeard(page, 'left', 0.1);
    expect(await page.$('[data-beyond]')).toBeNull();
    // Two ears, balanced.
    await desk.select('Right ear', 'low.sine');
    await isHeard(page, 'right', 0.5);
    await page.focus('input[aria-label=Balance]');
    for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowLeft');
    await isHeard(page, 'right', 0.25);
    await isHeard(page, 'left', 0.1);
    // 1 V is a quarter of an octave above 440 Hz.
    await desk.select('CV as a tone', 'tide.out');
    const toneDb = async () => dbOf(tonePeak(await steady(page, 0.6), 440 * 2 ** 0.25), 0.05);
    await expect.poll(toneDb, { timeout: 15_000 }).toBeCloseTo(0, 1);
    expect(tonePeak(await steady(page, 0.6), 440)).toBeLessThan(0.005);
    await desk.select('CV as a tone', '');
    // A loop is the same at every turn: what swings is cut to 0.4 s.
    await desk.stage('mix');
    await desk.type('gain2', '1');
    await page.focus('[data-live] button');
    await desk.keys('Shift+KeyL');
    await desk.fill('[aria-label="Loop to"]', '0.4');
    await hearFor(page, 1);
    const { left: looped, rate } = await steady(page, 1.2);
    const turn = Math.round(0.4 * rate);
    // Behind a seam all samples come again.
    let same = 0;
    for (let i = 0; i + turn < looped.length; i++) if (Math.abs(looped[i]! - looped[i + turn]!) < 1e-6) same++;
    expect(same / (looped.length - turn)).toBeGreaterThan(0.8);
    await page.keyboard.press('Space');
  });

  it('switches sides no louder than the louder, and takes a bias from end to end and a stage out without a click', async () => {
    const raised = applyEdits(swell, [{ do: 'set', module: 'tide', param: 'volts', value: 4 }]);
    const both = applyEdits(swell, [{ do: 'variant', name: 'Loud', state: raised }]);
    const { page, desk } = await play(both);
    await desk.select('Compare with', 'Loud');
    await page.waitForFunction(() => /Turned down/.test(document.querySelector('[data-match]')?.textContent ?? ''), {
      timeout: 30_000,
    });
    await isHeard(page, 'left', 0.1);
    const here = 0.1;
    const from = await tappedSamples(page);
    for (const side of ['there', 'here', 'there']) {
      await page.click(`[aria-label="A/B"] [value=${side}]`);
      await hearFor(page, 0.3);
    }
    const all = await heardAudio(page, from);
    expect(dbOf(peak(all.left), here)).toBeLessThan(0.1);
    await isHeard(page, 'left', here);
    await desk.select('Compare with', '');
    const own = steepest((await steady(page)).left);
    const across = async (act: () => Promise<void>): Promise<number> => {
      const from = await tappedSamples(page);
      await act();
      await hearFor(page, 0.4);
      return steepest((await heardAudio(page, from)).left);
    };
    await desk.stage('amp');
    const bias = desk.knob('bias');
    // 5 V of bias over 5 ms beside the sound's own slope at full level.
    const law = 5 * own + 0.5 / (0.005 * 44_100);
    expect(await across(() => desk.type('bias', '4'))).toBeLessThan(1.2 * law);
    expect(bias).toBeTruthy();
    expect(await across(() => desk.button('Undo'))).toBeLessThan(1.2 * law);
    // 10 ms of a raised cosine over at most what is heard.
    const seam = own + (0.1 * Math.PI) / (2 * 0.01 * 44_100);
    await desk.stage('mix');
    expect(await across(() => page.keyboard.press('Delete'))).toBeLessThan(1.2 * seam);
    await page.keyboard.press('Space');
  });

  it('is a take again when the take is replayed, level for level', async () => {
    const { page, desk } = await play(swell);
    await desk.button('Controls');
    const fader = '[data-fader="tide.volts"] input';
    // What jumps in the first seconds is held back, whoever makes it.
    await hearFor(page, 3);
    await desk.button('Record');
    await page.focus(fader);
    // Held, up, in steps down, held, and up again.
    await hearFor(page, 0.3);
    await page.keyboard.press('End');
    for (let i = 0; i < 25; i++) await page.keyboard.press('ArrowDown');
    await hearFor(page, 0.4);
    await page.keyboard.press('Home');
    await hearFor(page, 0.2);
    await page.keyboard.press('End');
    await hearFor(page, 0.4);
    await desk.button('Stop recording');
    await page.waitForSelector('[data-take="1"]');
    const played = await heardAudio(page);
    await desk.button('Keep as automation');
    await desk.keys('Escape');
    await page.focus('[data-live] button');
    await desk.keys('Shift+KeyP');
    await page.waitForFunction(() => /Time 0:00/.test(document.querySelector('[data-figure=time]')?.textContent ?? ''));
    await hearFor(page, played.left.length / played.rate);
    const again = await heardAudio(page, 0, played.left.length);
    // Both begin in silence, with the first sample that sounds.
    const begin = (x: readonly number[]): number => x.findIndex((v) => v !== 0);
    const [a, b] = [played.left.slice(begin(played.left)), again.left.slice(begin(again.left))];
    const count = Math.min(a.length, b.length);
    const from = Math.round(3.1 * played.rate);
    let off = 0;
    for (let i = from; i < count; i++) off = Math.max(off, Math.abs(a[i]! - b[i]!));
    // Half a percent of the fader's travel is 2.5 mV of full scale.
    expect(count - from).toBeGreaterThan(played.rate);
    expect(peak(a.slice(from, count))).toBeGreaterThan(0.45);
    expect(off).toBeLessThan(0.0025);
    await page.keyboard.press('Space');
  });
});

describe('what happens around it is said', () => {
  it('a hidden tab goes on, or stops where that is preferred; two that play know of each other', async () => {
    const { page } = await play(swell);
    const hide = (state: 'hidden' | 'visible') =>
      page.evaluate((s) => {
        Object.defineProperty(document, 'visibilityState', { value: s, configurable: true });
        document.dispatchEvent(new Event('visibilitychange'));
      }, state);
    await hide('hidden');
    await hearFor(page, 0.5);
    await hide('visible');
    expect(await page.$('[data-live=playing]')).not.toBeNull();
    await panel(page);
    await page.click('::-p-xpath(//label[contains(., "Keep playing when this tab is hidden")])');
    await hide('hidden');
    await page.waitForSelector('[data-live=idle]');
    await hide('visible');
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "Playback stopped because this tab was hidden")])');
    // Two tabs know of each other, and one can be heard alone.
    await page.click('[aria-label="Play"]');
    await page.waitForSelector('[data-live=playing]');
    const { page: second, desk } = await at.newPage();
    await desk.openItself(page.url().split('/').at(-1)!);
    await second.keyboard.press('Space');
    await second.waitForSelector('[data-live=playing]');
    await second.waitForSelector('[data-other-tabs]');
    await page.waitForSelector('[data-other-tabs]');
    await desk.button('Stop the others');
    await page.waitForSelector('[data-live=idle]');
    await second.waitForFunction(() => !document.querySelector('[data-other-tabs]'));
    expect(await second.$('[data-live=playing]')).not.toBeNull();
    await second.keyboard.press('Space');
  });

  it('a device that stops is said, and plays again when asked; until then hits are not held back', async () => {
    const { page, desk } = await play(struck);
    const { left, rate } = await steady(page, 2);
    const hit = Math.round(0.4 * rate);
    const peaks = Array.from({ length: Math.floor(left.length / hit) }, (_, n) =>
      peak(left.slice(n * hit, (n + 1) * hit)),
    );
    expect(peaks.length).toBeGreaterThanOrEqual(4);
    for (const p of peaks) expect(Math.abs(dbOf(p, peaks.at(-1)!))).toBeLessThan(0.1);
    expect(await page.$('[data-figure=held]')).toBeNull();
    await suspendDevice(page);
    await page.waitForSelector('[data-live=failed]', { timeout: 20_000 });
    await page.waitForSelector('::-p-xpath(//*[@role="alert"][contains(., "The sound device stopped")])');
    await desk.button('Play');
    await page.waitForSelector('[data-live=playing]');
    await hearFor(page, 0.5);
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
  });
});
