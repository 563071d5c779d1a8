import { spawnSync } from 'node:child_process';
import type { Page } from 'puppeteer-core';
import { launchBrowser } from '../tests/support/browser';
import { Application } from '../tests/support/setup';
import { row } from './figures';
import { Section } from './section';

/** How long one waits: for an editor of a server that has just started, for the next patch, for the command line. Figures, no verdict. */
const section = new Section(
  'starts',
  'Starts',
  '`npm run bench -- starts`, milliseconds; the browser is headless Chromium without graphics.',
);
const ROUNDS = 7;
const SECOND = '[data-placed] a[href="/patches/lamp-keepers-night"]';

/** Until a press on a stage is answered. */
async function ready(page: Page): Promise<void> {
  await page.waitForSelector('[data-frame]');
  await page.waitForFunction(
    () => {
      const frame = document.querySelector<HTMLElement>('[data-frame]');
      if (frame?.getAttribute('aria-pressed') === 'false')
        frame.dispatchEvent(new MouseEvent('click', { bubbles: true }));
      return frame?.getAttribute('aria-pressed') === 'true';
    },
    { polling: 'raf' },
  );
}

async function timed(act: () => Promise<unknown>, page: Page): Promise<number> {
  const began = performance.now();
  await act();
  await ready(page);
  return performance.now() - began;
}

const [first, second]: [number[], number[]] = [[], []];
for (let round = 0; round < ROUNDS; round++) {
  const application = await Application.open();
  const { browser, close } = await launchBrowser();
  const page = await browser.newPage();
  first.push(await timed(() => page.goto(`${application.url}/patches/fog-bank-breathing`), page));
  await page.locator('header a[href="/"]').click();
  await page.waitForSelector(SECOND);
  second.push(await timed(() => page.click(SECOND), page));
  await close();
  await application.close();
}
section.add('an editor, from a server and a browser that have just started', row(first), '900');
section.add('the second patch, of 25 modules, from a press in the list', row(second), '300');

function command(...args: string[]): number {
  const began = performance.now();
  const { status } = spawnSync(process.execPath, ['scripts/fenvo.mjs', ...args], { stdio: 'ignore' });
  if (status !== 0) throw new Error(`${args.join(' ')} ended with ${status}`);
  return performance.now() - began;
}
const NIGHT = 'demo/patches/lamp-keepers-night.fenvo.json';
command('check', NIGHT);
const times = (name: string, rounds: number): number[] => Array.from({ length: rounds }, () => command(name, NIGHT));
section.add('`check` of the demo night', row(times('check', 15)), '250');
section.add('`predict` of the demo night', row(times('predict', 7)), '1000');
section.add(
  'of each, Node’s own start',
  row(
    Array.from({ length: 15 }, () => {
      const began = performance.now();
      spawnSync(process.execPath, ['-e', '0']);
      return performance.now() - began;
    }),
  ),
);
section.write();
