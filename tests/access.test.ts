import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import type { DeskDriver } from './support/desk';
import { openPages } from './support/pages';

const { at } = openPages();
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResults {
  readonly violations: readonly {
    readonly id: string;
    readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
  }[];
}

/** What the checker finds against WCAG 2.2 A and AA. */
async function violations(page: Page): Promise<string[]> {
  // The page's own policy refuses scripts that it did not name; the checker comes in past it.
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: { run(options: object): Promise<AxeResults> } };
    return axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] });
  });
  return found.violations.flatMap((v) =>
    v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary.split('\n')[1] ?? ''}`),
  );
}

/** Every view, and how one gets there. */
const views: readonly (readonly [string, (desk: DeskDriver) => Promise<void>])[] = [
  ['the shelf', (desk) => desk.shelf()],
  [
    'a goal',
    async (desk) => {
      await desk.shelf();
      await desk.button('From a goal');
      await desk.page.waitForSelector('[data-goal=true]');
    },
  ],
  [
    'a rack',
    async (desk) => {
      await desk.page.goto(`${at.url}/racks`, { waitUntil: 'domcontentloaded' });
      await (await desk.page.waitForSelector('[data-rack-module=lifts]'))!.click();
      await desk.page.waitForSelector('[data-editing=lifts]');
      await (await desk.page.waitForSelector('[data-section="channel limits"] button'))!.click();
      await desk.page.waitForSelector('[data-limit-of=amount]');
    },
  ],
  [
    'a sheet',
    async (desk) => {
      await desk.page.goto(`${at.url}/patches/fog-bank-breathing/sheet`, { waitUntil: 'domcontentloaded' });
      await desk.page.waitForSelector('[data-step]');
    },
  ],
  [
    'an empty desk with the first steps',
    async (desk) => {
      await desk.shelf();
      await desk.page.evaluate(() => localStorage.removeItem('fenvo.settings'));
      await desk.button('New patch');
      await desk.page.waitForSelector('[aria-label="First steps"]');
    },
  ],
  [
    'the desk, with a stage chosen',
    async (desk) => {
      await desk.open('lamp-sweep-shut');
      await desk.stage('beam');
      await desk.page.waitForSelector('[data-finding]');
      await desk.button('Normals and ohms');
    },
  ],
  [
    'choosing a stage',
    async (desk) => {
      await desk.open('fog-bank-breathing');
      await desk.page.click('[aria-label="Insert a stage before Fog tone"]');
      await desk.page.waitForSelector('[data-proposed=true]');
    },
  ],
  [
    'finding by typing',
    async (desk) => {
      await desk.open('fog-bank-breathing');
      await desk.keys('Control+k');
      await desk.page.waitForSelector('[role=dialog] [data-choice]');
    },
  ],
  [
    'keys and words',
    async (desk) => {
      await desk.open('fog-bank-breathing');
      await desk.keys('Shift+Slash');
      await desk.page.waitForSelector('[role=dialog] dl');
    },
  ],
  [
    'two states compared',
    async (desk) => {
      await desk.open('two-lamps-opposite-ways');
      await desk.button('Variants');
      await desk.button('Keep as it is now');
      await desk.page.waitForSelector('[data-variant]');
      await desk.page.click('[data-frame=depth]');
      await desk.button('Close');
      await desk.type('amount', '0.3');
      await desk.button('Variants');
      await desk.button('Compare');
      await desk.page.waitForSelector('[data-difference]');
    },
  ],
  [
    'earlier versions',
    async (desk) => {
      await desk.open('morse-key-slewed');
      await desk.button('History');
      await desk.page.waitForSelector('[data-version]');
    },
  ],
  [
    'drawing a gesture',
    async (desk) => {
      await desk.open('fog-bank-breathing');
      await desk.find('Tide gauge');
      await desk.button('Draw or record');
      await desk.page.waitForSelector('[data-gesture]');
    },
  ],
  [
    'bringing a file in',
    async (desk) => {
      await desk.open('fog-bank-breathing');
      await desk.button('Import');
      await desk.page.waitForSelector('[data-bring]');
    },
  ],
  ...(['levels', 'xy', 'spectrum'] as const).map(
    (way) =>
      [
        `the scope: ${way}`,
        async (desk: DeskDriver) => {
          await desk.open('lamp-sweep-cured');
          await desk.page.waitForSelector('[data-way]');
          await desk.page.click(`[data-way=${way}]`);
          await desk.page.waitForSelector(`[data-${way}]`);
        },
      ] as const,
  ),
  [
    'the desk on a phone',
    async (desk) => {
      await desk.page.setViewport({ width: 390, height: 844 });
      await desk.open('fog-bank-breathing');
    },
  ],
];

describe('WCAG 2.2 AA in both themes', () => {
  it.each(views)('%s', async (_name, show) => {
    const { page, desk } = at;
    const still = { name: 'prefers-reduced-motion', value: 'reduce' };
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'light' }, still]);
    await show(desk);
    expect(await violations(page)).toEqual([]);
    // The same page in the other theme: what is drawn follows the system.
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }, still]);
    await page.waitForSelector('html.dark');
    expect(await violations(page)).toEqual([]);
  });
});
