import { launchBrowser } from '../tests/support/browser';
import { DeskDriver } from '../tests/support/desk';
import { Application } from '../tests/support/setup';
import { row } from './figures';
import { Section } from './section';

/**
 * The demo's largest patch plays while a knob is dragged without a pause: dropouts, the sound thread's load, frames.
 * FENVO_MINUTES tells how long; one, if left out.
 */
const section = new Section(
  'dropouts',
  'Sound while a knob turns',
  '`npm run bench -- dropouts`: the largest demo patch plays while a knob is dragged without a pause.',
);
const MINUTES = Number(process.env.FENVO_MINUTES ?? 1);

const application = await Application.open();
const { browser, close } = await launchBrowser();
const page = await browser.newPage();
await page.evaluateOnNewDocument(() => localStorage.setItem('fenvo.settings', '{"cared":true,"guide":"off"}'));
const desk = new DeskDriver(page, application.url);
await desk.open('lamp-keepers-night');
await page.click('[data-end="fog.cutoff"]');
await desk.stage('breath');
await page.keyboard.press('Space');
await page.waitForSelector('[data-live=playing]');
const box = (await (await page.waitForSelector(desk.knob('gain1')))?.boundingBox()) ?? { x: 0, y: 0 };
const [x, y] = [box.x + 20, box.y + 20];
const figure = (id: string): Promise<string> =>
  page.$eval(`[data-figure=${id}]`, (e) => e.textContent ?? '').catch(() => '?');

async function frames(seconds: number, move: boolean): Promise<number[]> {
  const gaps = page.evaluate(
    (ms) =>
      new Promise<number[]>((resolve) => {
        const found: number[] = [];
        const began = performance.now();
        let last = began;
        const tick = (now: number): void => {
          found.push(now - last);
          last = now;
          if (now - began < ms) requestAnimationFrame(tick);
          else resolve(found.slice(1));
        };
        requestAnimationFrame(tick);
      }),
    1000 * seconds,
  );
  const end = Date.now() + 1000 * seconds;
  if (move) {
    await page.mouse.move(x, y);
    await page.mouse.down();
  }
  for (let i = 0; Date.now() < end; i++) {
    if (move) await page.mouse.move(x, y - 40 * Math.sin((2 * Math.PI * (i + 1)) / 60));
    await new Promise((resolve) => setTimeout(resolve, 16));
  }
  if (move) await page.mouse.up();
  return gaps;
}

await page.mouse.move(x, y);
section.add('time between frames while it plays, ms', row(await frames(10, false)));
for (let minute = 1; minute <= MINUTES; minute++) {
  const gaps = await frames(60, true);
  section.add(
    `minute ${minute} of dragging`,
    `${await figure('dropouts')}; ${await figure('load')}; frames apart, ms: ${row(gaps)}`,
    'no dropout; p50 16.7, p95 20',
  );
}
await page.keyboard.press('Space');
await close();
await application.close();
section.write();
