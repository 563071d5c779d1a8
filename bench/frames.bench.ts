import { openBrowser } from '../tests/support/browser';
import { DeskDriver } from '../tests/support/desk';
import { Application } from '../tests/support/setup';
import { row } from './figures';

/** From a knob's event to the frame that shows the new bands, in headless Chromium; figures, no verdict. */
const MOVES = 300;

declare global {
  interface Window {
    fenvoTimes: number[];
    fenvoTraces: number[];
  }
}

const application = await Application.open();
const { browser, close } = await openBrowser();
const page = await browser.newPage();
const desk = new DeskDriver(page, application.url);
await desk.open('lamp-keepers-night');
await page.click('[data-end="fog.cutoff"]');
await desk.stage('breath');
await page.focus(desk.knob('gain 1'));
await page.evaluate(() => {
  window.fenvoTimes = [];
  window.fenvoTraces = [];
  // After the frame's callbacks come style, layout and paint; a message posted there arrives when they are done.
  const channel = new MessageChannel();
  let from = 0;
  const lift = document.querySelector('[data-frame=lift]');
  const traced = new MutationObserver((list) => {
    if (
      from > 0 &&
      list.some((m) => m.target.nodeName === 'path' && (m.target as Element).getAttribute('stroke-width') === '1.4')
    ) {
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
console.log(`knob event to painted bands, ms: ${row(times)}`);
const moved = await page.evaluate(() => window.fenvoTraces);
console.log(`last knob event to a new trace in the strip, ms: ${row(moved)}`);

const knob = await page.waitForSelector(desk.knob('gain 1'));
const box = (await knob?.boundingBox()) ?? { x: 0, y: 0 };
await page.mouse.move(box.x + 20, box.y + 20);
await page.mouse.down();
const frames = page.evaluate(
  () =>
    new Promise<number[]>((resolve) => {
      const gaps: number[] = [];
      let last = performance.now();
      const tick = (): void => {
        const now = performance.now();
        gaps.push(now - last);
        last = now;
        if (gaps.length < 180) requestAnimationFrame(tick);
        else resolve(gaps);
      };
      requestAnimationFrame(tick);
    }),
);
for (let i = 0; i < 200; i++) {
  await page.mouse.move(box.x + 20, box.y + 20 - 60 * Math.sin(i / 12));
  await new Promise((resolve) => setTimeout(resolve, 8));
}
console.log(`time between frames while a knob is dragged, ms: ${row(await frames)}`);
await page.mouse.up();
await close();
await application.close();
