import { printPatch } from '../core';
import { randomPatch } from '../core/testing/randomPatch';
import { launchBrowser } from '../tests/support/browser';
import { storePatch } from '../tests/support/desk';
import { Application } from '../tests/support/setup';
import { row } from './figures';

/** A list of that many patches: how soon it appears and how evenly it scrolls, in headless Chromium. Figures, no verdict. */
const PATCHES = 500;

const application = await Application.open();
for (let seed = 0; seed < PATCHES; seed++) {
  const document = printPatch(randomPatch(seed, { loops: false, duration: 0.05 }));
  await storePatch(application.url, { ...document, name: `Patch ${seed}` });
}
const { browser, close } = await launchBrowser();
const page = await browser.newPage();
const began = performance.now();
await page.goto(application.url, { waitUntil: 'domcontentloaded' });
await page.waitForSelector('[data-patch]');
console.log(`the first row of ${PATCHES} after ${(performance.now() - began).toFixed(0)} ms`);
await new Promise((resolve) => setTimeout(resolve, 3000));

/** Gaps between frames at the speed of a quick scroll, 3000 pixels a second, down and back. */
const gaps = await page.evaluate(
  () =>
    new Promise<number[]>((resolve) => {
      const found: number[] = [];
      const EACH = 50;
      const FRAMES = 600;
      let last = performance.now();
      const tick = (): void => {
        const now = performance.now();
        found.push(now - last);
        last = now;
        scrollTo(0, EACH * Math.min(found.length, FRAMES - found.length));
        if (found.length < FRAMES) requestAnimationFrame(tick);
        else resolve(found);
      };
      requestAnimationFrame(tick);
    }),
);
const rows = await page.$$eval('[data-patch]', (all) => all.length);
console.log(`frames while scrolling ${rows} rows down and up, ms apart: ${row(gaps.slice(1))}`);
await close();
await application.close();
