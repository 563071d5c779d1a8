import type { Page } from 'puppeteer-core';
import { launchBrowser } from '../tests/support/browser';
import { DeskDriver } from '../tests/support/desk';
import { Application } from '../tests/support/setup';
import { row } from './figures';
import { Section } from './section';

/** From a knob's event to the frame that shows the new bands, in headless Chromium; figures, no verdict. */
const section = new Section(
  'frames',
  'Frames while a knob turns',
  '`npm run bench -- frames`, at 24 modules in headless Chromium without graphics, milliseconds.',
);
const MOVES = 300;
const FRAMES = 240;

declare global {
  interface Window {
    fenvoTimes: number[];
    fenvoTraces: number[];
  }
}

const application = await Application.open();
const { browser, close } = await launchBrowser();
const page = await browser.newPage();
const desk = new DeskDriver(page, application.url);
await desk.open('lamp-keepers-night');
await page.click('[data-end="fog.cutoff"]');
await desk.stage('breath');
await page.focus(desk.knob('gain1'));
await page.evaluate(() => {
  window.fenvoTimes = [];
  window.fenvoTraces = [];
  // After the frame's callbacks come style, layout and paint; a message posted there arrives when they are done.
  const channel = new MessageChannel();
  let from = 0;
  const lift = document.querySelector('[data-frame=lift]');
  const traced = new MutationObserver((list) => {
    if (from > 0 && list.some((m) => m.target instanceof Element && m.target.hasAttribute('data-trace'))) {
      window.fenvoTraces.push(performance.now() - from);
    }
  });
  if (lift) traced.observe(lift, { attributes: true, attributeFilter: ['d'], subtree: true });
  channel.port1.onmessage = () => window.fenvoTimes.push(performance.now() - from);
  window.addEventListener(
    'keydown',
    (e) => {
      from = e.timeStamp;
      requestAnimationFrame(() => channel.port2.postMessage(0));
    },
    { capture: true },
  );
});
for (let i = 0; i < MOVES; i++) {
  await page.keyboard.press(i % 40 < 20 ? 'ArrowUp' : 'ArrowDown');
  await new Promise((resolve) => setTimeout(resolve, 20));
}
const times = await page.evaluate(() => window.fenvoTimes);
section.add('knob event to painted bands', row(times));
const moved = await page.evaluate(() => window.fenvoTraces);
section.add('last knob event to a new trace in the strip', row(moved), '100');

/** Gaps between frames while the pointer goes up and down. */
async function gapsWhileDragging(on: Page, x: number, y: number): Promise<number[]> {
  const gaps = on.evaluate(
    (count) =>
      new Promise<number[]>((resolve) => {
        const found: number[] = [];
        let last = performance.now();
        const tick = (): void => {
          const now = performance.now();
          found.push(now - last);
          last = now;
          if (found.length < count) requestAnimationFrame(tick);
          else resolve(found);
        };
        requestAnimationFrame(tick);
      }),
    FRAMES,
  );
  await on.mouse.move(x, y);
  await on.mouse.down();
  for (let i = 0; i < FRAMES; i++) {
    // Whole swings, so that the knob ends where it began and never stands at its end.
    await on.mouse.move(x, y - 40 * Math.sin((2 * Math.PI * (i + 1)) / 60));
    await new Promise((resolve) => setTimeout(resolve, 12));
  }
  const found = await gaps;
  await on.mouse.up();
  return found;
}

/** What the page's own thread spent on each frame, milliseconds of its CPU time: other work on the machine does not count. */
async function workWhile(on: Page, act: () => Promise<unknown>): Promise<number[]> {
  await on.tracing.start({ categories: ['toplevel', 'cc'] });
  await act();
  const trace = Buffer.from((await on.tracing.stop()) ?? []).toString();
  const { traceEvents } = JSON.parse(trace) as { traceEvents: { name: string; tdur?: number }[] };
  return traceEvents.flatMap((e) => (e.name === 'ProxyMain::BeginMainFrame' && e.tdur ? [e.tdur / 1000] : []));
}

const knob = await page.waitForSelector(desk.knob('gain1'));
const box = (await knob?.boundingBox()) ?? { x: 0, y: 0 };
const [x, y] = [box.x + 20, box.y + 20];

// The best this machine can do: one rectangle that follows the pointer.
const bare = await browser.newPage();
await bare.setContent('<svg width="400" height="800"><rect width="200" height="400"/></svg>');
await bare.evaluate(() => {
  const rect = document.querySelector('rect');
  window.addEventListener('pointermove', (e) => {
    requestAnimationFrame(() => rect?.setAttribute('height', String(e.clientY)));
  });
});
const gaps: Record<'bare' | 'knob', number[]> = { bare: [], knob: [] };
for (let i = 0; i < 3; i++) {
  await bare.bringToFront();
  gaps.bare.push(...(await gapsWhileDragging(bare, 100, 400)));
  await page.bringToFront();
  gaps.knob.push(...(await gapsWhileDragging(page, x, y)));
}
section.add('time between frames, one rectangle that follows the pointer', row(gaps.bare));
section.add('time between frames while a knob is dragged', row(gaps.knob), 'p50 16.7, p95 20');
const work = await workWhile(page, () => gapsWhileDragging(page, x, y));
section.add('the page’s own work for one of them, of its thread', row(work));
section.write();
await close();
await application.close();
