import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { afterAll, describe, expect, it } from 'vitest';
import { Capturing } from './support/capturing';
import { storePatch } from './support/desk';
import type { DeskDriver } from './support/desk';
import { openPages } from './support/pages';

const { at } = openPages();
const folder = mkdtempSync(path.join(os.tmpdir(), 'fenvo-bench-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const FOG = 'fog-bank-breathing';
const RACK = 'pier-rack';
const PULLED = { kind: 'cableMissing', cable: { from: 'trim.out', to: 'join.in1' } };

interface Session {
  readonly id: string;
  readonly notes: string;
  readonly wrong: number;
  readonly rackIsSimulated: { readonly faults: readonly object[] } | null;
  readonly list: readonly { readonly at: string; readonly quantity: string; readonly verdict: string | null }[];
}

async function opened(more: object): Promise<Session> {
  const answer = await fetch(`${at.url}/api/bench/sessions`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ patch: FOG, rack: RACK, ...more }),
  });
  expect(answer.status).toBe(201);
  return (await answer.json()) as Session;
}
const session = async (id: string): Promise<Session> =>
  (await (await fetch(`${at.url}/api/bench/sessions/${id}`)).json()) as Session;

const tab = async (desk: DeskDriver, name: string): Promise<void> => {
  const found = await desk.page.waitForSelector(`::-p-xpath(//*[@role="tab"][normalize-space()="${name}"])`);
  await found!.click();
};
const overflow = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

describe('a standing at a simulated rack', () => {
  it('goes from a wrong reading to its fault, is mended, and tells what the modules are', async () => {
    const { page, desk } = at;
    const { id } = await opened({ simulated: { seed: 11, faults: [PULLED], surprise: true } });
    await desk.goTo(`/bench/${id}`);
    await page.waitForSelector('h1 [data-simulated]');
    await desk.button('Read all outputs');
    await page.waitForSelector('[data-reading][data-verdict=wrong]');
    await desk.button('Find the fault');
    await page.waitForSelector('[data-diagnosis=fault]');
    // What is proposed is measured, until one cause is left in front.
    for (let n = 0; n < 4; n++) {
      const next = await page.$('[data-next]');
      if (!next) break;
      const asked = await next.evaluate((e) => e.getAttribute('data-next'));
      const read = await page.$('[data-next] ::-p-xpath(.//button[normalize-space()="Read"])');
      await read!.click();
      await page.waitForFunction(
        (before) => document.querySelector('[data-next]')?.getAttribute('data-next') !== before,
        {},
        asked,
      );
    }
    const first = (await page.waitForSelector('[data-cause]'))!;
    expect(await first.evaluate((e) => e.getAttribute('data-cause'))).toContain('Trim out to Join in 1');
    await desk.button('It was this one');
    await expect.poll(async () => (await session(id)).notes).toMatch(/^Found: The cable from Trim out to Join in 1/);
    expect((await session(id)).rackIsSimulated!.faults).toEqual([]);
    // Mended: the same reading again is right.
    await desk.select('Read at', 'join.out');
    await desk.select('Quantity', 'high');
    await desk.button('Read');
    await expect.poll(async () => (await session(id)).list.at(-1)).toMatchObject({ at: 'join.out', verdict: 'good' });
  });

  it('shows a cause in the strip, as what the voltages would be', async () => {
    const { page, desk } = at;
    await desk.keep({ guide: 'off' });
    const fault = encodeURIComponent(JSON.stringify({ faults: [PULLED], text: 'The cable is out' }));
    await desk.goTo(`/patches/${FOG}#fault=${fault}`);
    await page.waitForSelector('[data-ghost-bar]');
    const ghost = await page.waitForSelector('[data-ghost-at="join.out"]');
    const trim = await page.waitForSelector('[data-ghost-at="trim.out"]');
    const heightOf = (e: typeof ghost) => e!.evaluate((rect) => Number(rect.getAttribute('height')));
    expect(await heightOf(ghost)).toBeLessThan((await heightOf(trim)) / 2);
    await desk.button('Close');
    await page.waitForSelector('[data-ghost]', { hidden: true });
  });

  it('is calibrated from its sessions, and its rack taken over as measured', async () => {
    const { page, desk } = at;
    const own = (await (await fetch(`${at.url}/api/racks/${RACK}`)).json()) as { rack: object };
    const made = await fetch(`${at.url}/api/racks`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ rack: { ...own.rack, name: 'Pier rack, learned' } }),
    });
    const { id: rack } = (await made.json()) as { id: string };
    const { id } = await opened({ rack, simulated: { seed: 5, faults: [], surprise: false } });
    await desk.goTo(`/bench/${id}`);
    await desk.button('Read all outputs');
    await page.waitForSelector('[data-reading]');
    await desk.goTo('/bench');
    await tab(desk, 'Calibration');
    await desk.select('Rack', rack);
    await desk.select('Which sessions', '5');
    await desk.button('Calibrate');
    const chart = await page.waitForSelector('[data-rms]', { timeout: 60_000 });
    const [before, after] = (await chart!.evaluate((e) => e.getAttribute('data-rms') ?? '')).split(' ').map(Number);
    expect(after).toBeLessThan(before! / 2);
    const write = await page.waitForSelector('::-p-xpath(//button[starts-with(normalize-space(), "Apply ")])');
    await write!.click();
    await expect
      .poll(async () => JSON.stringify((await (await fetch(`${at.url}/api/racks/${rack}`)).json()) as object))
      .toContain('"measured"');
    // The sheet says what the modules really do, where that is asked for.
    await desk.keep({ rack, guide: 'off' });
    await desk.goTo(`/patches/${FOG}/sheet`);
    const expected = '[data-step="measure-swell.out"] [data-expect=high]';
    await page.waitForSelector(expected);
    const text = (): Promise<string> => page.$eval(expected, (e) => e.textContent);
    const plain = await text();
    await page.click('::-p-xpath(//label[normalize-space()="Modules as measured"])');
    await expect.poll(text, { timeout: 15_000 }).not.toBe(plain);
  });
});

describe('a reading in the sheet', () => {
  it('is judged as it is typed, and a wrong one leads to its session', async () => {
    const { page, desk } = at;
    const id = await storePatch(at.url, {
      format: 'fenvo.patch',
      version: 1,
      name: 'Halved',
      modules: [
        { id: 'slow', kind: 'lfo' },
        { id: 'trim', kind: 'attenuverter', params: { amount: 0.5 } },
        { id: 'end', kind: 'parameter' },
      ],
      cables: [
        { from: 'slow.out', to: 'trim.in' },
        { from: 'trim.out', to: 'end.cv' },
      ],
    });
    await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await desk.goTo(`/patches/${id}/sheet`);
    const field = (at: string, quantity: string): string =>
      `[data-step="measure-${at}"] [data-expect=${quantity}] input`;
    await page.waitForSelector(field('slow.out', 'high'));
    await page.type(field('slow.out', 'high'), '5,02 V');
    await page.waitForSelector('[data-expect=high][data-verdict=good]');
    await page.type(field('trim.out', 'high'), '0.8');
    await page.waitForSelector('[data-expect=high][data-verdict=wrong]');
    const find = await page.waitForSelector('::-p-xpath(//a[normalize-space()="Find the fault"])');
    expect(await overflow(page)).toBeLessThanOrEqual(0);
    await find!.click();
    await page.waitForSelector('[data-diagnosis=fault]', { timeout: 30_000 });
    expect(await overflow(page)).toBeLessThanOrEqual(0);
    const reading = await page.waitForSelector('[data-reading][data-verdict=wrong]');
    expect(await reading!.evaluate((e) => e.getAttribute('data-at'))).toBe('trim.out');
  });
});

describe('a session', () => {
  it('keeps photographs, upright and small, and recordings over their prediction', async () => {
    const { page, desk } = at;
    const { id } = await opened({});
    await desk.goTo(`/bench/${id}`);
    await tab(desk, 'Photos');
    const input = (await page.waitForSelector('input[aria-label="A photo"]'))!;
    const picture = path.join(folder, 'rack.png');
    await page.screenshot({ path: picture as `${string}.png` });
    await input.uploadFile(picture);
    await page.waitForSelector('[data-photograph] img');

    await tab(desk, 'Recordings');
    await desk.select('Recorded at', 'swell.out');
    const csv = path.join(folder, 'swell.csv');
    const rows = Array.from({ length: 3000 }, (_, k) => {
      const phase = (0.25 * (k / 500) + 0.6) % 1;
      return `${k / 500},${(phase < 0.5 ? 20 * phase - 5 : 15 - 20 * phase).toFixed(4)}`;
    });
    writeFileSync(csv, `time_s,volts\n${rows.join('\n')}\n`);
    await (await page.waitForSelector('input[data-bring]'))!.uploadFile(csv);
    await page.waitForSelector('[data-overlay] dl');
    const residual = await page.$eval('[data-overlay] dl', (e) => e.textContent);
    expect(Number(/Residual([\d.]+)/.exec(residual)?.[1])).toBeLessThan(0.06);
    await desk.button('Add as readings');
    await expect
      .poll(async () => (await session(id)).list.map((r) => [r.at, r.quantity, r.verdict]))
      .toContainEqual(['swell.out', 'high', 'good']);
  });
});

describe('live input', () => {
  it('is scaled once against a known voltage, and readings are taken of it with a key', async () => {
    const { id } = await opened({});
    const live = await Capturing.open(at.url, path.join(folder, 'dc.wav'), () => 0.5);
    await live.listenTo(id);
    expect(await live.scaled()).toBe('dc');
    // A browser without a sound device loses some of it on a busy machine: that pulls the mean down, never the maximum.
    await expect.poll(() => live.level(), { timeout: 10_000 }).toMatch(/to 5\.00/);
    await live.page.keyboard.press('r');
    await expect.poll(async () => (await session(id)).list.length).toBeGreaterThan(0);
    await live.close();
  });
  it('says where an input blocks constant voltage', async () => {
    const { id } = await opened({});
    const live = await Capturing.open(at.url, path.join(folder, 'ac.wav'), (t) => 0.5 * Math.sin(6 * Math.PI * t));
    await live.listenTo(id);
    expect(await live.scaled()).toBe('blocked');
    await live.close();
  });
});

describe('from patch to patch', () => {
  it('leads a change sheet, and an evening as one document', async () => {
    const { page, desk } = at;
    await desk.goTo(`/bench/change?from=${FOG}&to=two-lamps-opposite-ways&rack=${RACK}`);
    await page.waitForSelector('[data-do=unplug]');
    await desk.goTo('/bench');
    await tab(desk, 'Set lists');
    const night = await page.waitForSelector('::-p-xpath(//a[contains(., "Lamp Keeper")])');
    await night!.click();
    await page.waitForSelector('[data-entry]');
    expect(await page.$$eval('[data-entry]', (all) => all.length)).toBe(5);
    expect(await page.$$eval('[data-entry]:nth-of-type(1) [data-do=unplug]', (all) => all.length)).toBe(0);
  });
});
