import { Midi } from '@tonejs/midi';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { afterAll, describe, expect, it } from 'vitest';
import { storePatch } from './support/desk';
import { openPages } from './support/pages';

/** What takes long: it says how far it is, can be ended, and holds nothing up. */
const { at } = openPages();

const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-long-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const upload = async (file: string, ...parts: Uint8Array[]): Promise<void> => {
  const name = path.join(folder, file);
  writeFileSync(name, Buffer.concat(parts));
  const [chooser] = await Promise.all([at.page.waitForFileChooser(), at.desk.button('Choose a file')]);
  await chooser.accept([name]);
};

/** Notes the longest time between two frames of the page from now on, milliseconds. */
const watchFrames = (page: Page): Promise<void> =>
  page.evaluate(() => {
    let last = performance.now();
    const seen = { most: 0 };
    Object.assign(globalThis, { seen });
    const frame = (now: number): void => {
      seen.most = Math.max(seen.most, now - last);
      last = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
const longestFrame = (page: Page): Promise<number> =>
  page.evaluate(() => Math.round((globalThis as unknown as { seen: { most: number } }).seen.most));

/** A 16-bit mono WAV of silence, so large. */
function silence(bytes: number): readonly [Uint8Array, Uint8Array] {
  const head = new DataView(new ArrayBuffer(44));
  const text = (at: number, word: string): void => [...word].forEach((c, i) => head.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  head.setUint32(4, 36 + bytes, true);
  text(8, 'WAVEfmt ');
  [16, 0x0001_0001, 192_000, 384_000, 0x0010_0002].forEach((word, i) => head.setUint32(16 + 4 * i, word, true));
  text(36, 'data');
  head.setUint32(40, bytes, true);
  return [new Uint8Array(head.buffer), new Uint8Array(bytes)];
}

describe('a long simulation', () => {
  it('says how far it is, is ended by hand, and the desk goes on answering', async () => {
    const { desk, page } = at;
    const ids = Array.from({ length: 80 }, (_, i) => `m${i}`);
    const id = await storePatch(at.url, {
      format: 'fenvo.patch',
      version: 1,
      settings: { duration: 120, sampleRate: 192_000 },
      modules: [
        { id: 'slow', kind: 'lfo' },
        ...ids.map((m) => ({ id: m, kind: 'slew' })),
        { id: 'end', kind: 'filter' },
      ],
      cables: ['slow', ...ids].map((from, i) => ({ from: `${from}.out`, to: i < 80 ? `m${i}.in` : 'end.cutoff' })),
    });
    await page.goto(`${at.url}/patches/${id}`);
    const bar = '[aria-label="Simulating…"]';
    await page.waitForSelector(bar, { timeout: 20_000 });
    await page.waitForFunction((s) => Number(document.querySelector(s)?.getAttribute('aria-valuenow')) > 0, {}, bar);
    await desk.button('Cancel');
    await page.waitForSelector(bar, { hidden: true });
    await desk.stage('slow');
    await desk.type('rateHz', '3');
    await desk.saved();
    expect(await desk.knobText('rateHz')).toContain('3.00');
  });
});

describe('a large file', () => {
  it('of 130 000 notes is read beside the page, and what is cut is told', async () => {
    const { desk, page } = at;
    const midi = new Midi();
    const track = midi.addTrack();
    for (let i = 0; i < 130_000; i++) track.addNote({ midi: 40 + (i % 40), ticks: i * 10, durationTicks: 5 });
    const bytes = midi.toArray();
    await desk.open('fog-bank-breathing');
    await desk.button('Import');
    await watchFrames(page);
    const began = Date.now();
    await upload('storm.mid', bytes);
    await page.waitForSelector('::-p-xpath(//*[@role="status"][contains(., "it will be cut at")])', {
      timeout: 60_000,
    });
    const frame = await longestFrame(page);
    console.log(`MIDI of ${(bytes.length / 1e6).toFixed(2)} MB: ${Date.now() - began} ms, longest frame ${frame} ms`);
    await desk.button('Import as gestures');
    await page.waitForSelector('[data-stage=pitch]');
    const points = (await desk.kept()).modules.find((m) => m.id === 'pitch')?.params?.points;
    expect(points).toHaveLength(10_000);
    await desk.button('Undo: Import');
    await desk.saved();
  });

  it('of many lines says how far it is', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.button('Import');
    await page.evaluate(() => {
      const told: number[] = [];
      Object.assign(globalThis, { told });
      const look = (): void => {
        const now = document.querySelector('[aria-label="Reading the file"]')?.getAttribute('aria-valuenow');
        if (now) told.push(Number(now));
      };
      new MutationObserver(look).observe(document.body, { subtree: true, attributes: true, childList: true });
    });
    const lines = Array.from({ length: 600_000 }, (_, k) => `${k / 10_000},${k % 7},${k % 11}`);
    await upload('log.csv', new TextEncoder().encode(`time,a,b\n${lines.join('\n')}\n`));
    await page.waitForSelector('::-p-xpath(//*[contains(., "60.0 s at 10000 Hz")])', { timeout: 60_000 });
    const told = await page.evaluate(() => (globalThis as unknown as { told: number[] }).told);
    expect(told.filter((x) => x > 0 && x < 100).length).toBeGreaterThan(0);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    await desk.button('Cancel');
  });

  it('of 120 MB can be stopped, and is read beside the page', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.button('Import');
    const wav = silence(120_000_000);
    // Pressed as soon as it is there: how long the reading takes is the machine's affair.
    await page.evaluate(() => {
      const look = new MutationObserver(() => {
        const stop = document.querySelector<HTMLElement>('[aria-label="Cancel reading"]');
        if (!stop) return;
        look.disconnect();
        stop.click();
        Object.assign(globalThis, { stopped: true });
      });
      look.observe(document.body, { subtree: true, childList: true });
    });
    await upload('hall.wav', ...wav);
    await page.waitForFunction(() => 'stopped' in globalThis);
    await page.waitForSelector('[aria-label="Cancel reading"]', { hidden: true });
    await page.waitForSelector('[aria-label="Reading the file"]', { hidden: true });
    expect(await page.$('[role=dialog] [role=alert]')).toBeNull();
    expect(await page.$('::-p-xpath(//button[contains(., "Use as a recording")])')).toBeNull();
    await watchFrames(page);
    const began = Date.now();
    await upload('hall.wav', ...wav);
    await page.waitForSelector('::-p-xpath(//*[contains(., "cut at 120 s")])', { timeout: 60_000 });
    const { JSHeapUsedSize: heap = 0 } = await page.metrics();
    console.log(
      `WAV of 120 MB: ${Date.now() - began} ms, longest frame ${await longestFrame(page)} ms, heap ${Math.round(heap / 1e6)} MB`,
    );
    await desk.button('Cancel');
  });
});
