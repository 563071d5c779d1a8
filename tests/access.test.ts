import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { openBrowser } from './support/browser';
import { DeskDriver } from './support/desk';

const url = inject('url');
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
let opened: Awaited<ReturnType<typeof openBrowser>>;
beforeAll(async () => {
  opened = await openBrowser();
});
afterAll(() => opened.close());

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

describe.each(['light', 'dark'])('WCAG 2.2 AA, %s theme', (scheme) => {
  const open = async (): Promise<Page> => {
    const page = await opened.browser.newPage();
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
    return page;
  };
  it('the shelf', async () => {
    const page = await open();
    await page.goto(url, { waitUntil: 'networkidle0' });
    await page.waitForSelector('[data-patch]');
    expect(await violations(page)).toEqual([]);
    await page.close();
  });
  it('the desk, with a stage chosen', async () => {
    const page = await open();
    const desk = new DeskDriver(page, url);
    await desk.open('lamp-sweep-shut');
    await desk.stage('beam');
    await page.waitForSelector('[data-finding]');
    expect(await violations(page)).toEqual([]);
    await page.close();
  });
});
