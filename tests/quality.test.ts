import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { drawn } from './support/drawn';
import { openPages } from './support/pages';

const { at } = openPages();

/** Compressed script that the editor may take at first, bytes. */
const MOST_SCRIPT = 450_000;

describe('the desk', () => {
  it('opens with little script, soon, and without long tasks', async () => {
    const { desk, page } = await at.newcomer();
    const sizes = new Map<string, Promise<number>>();
    page.on('response', (response) => {
      if (response.request().resourceType() === 'script')
        sizes.set(
          response.url(),
          response.buffer().then((body) => gzipSync(body, { level: 6 }).byteLength),
        );
    });
    await page.evaluateOnNewDocument(() => {
      const seen = { longest: 0 };
      Object.assign(window, { seen });
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration);
      }).observe({ type: 'longtask', buffered: true });
    });
    await desk.open('fog-bank-breathing');
    const [total, ready, longest] = [
      (await Promise.all(sizes.values())).reduce((a, b) => a + b, 0),
      await page.evaluate(() => performance.getEntriesByName('desk ready')[0]?.startTime ?? NaN),
      await page.evaluate(() => (window as unknown as { seen: { longest: number } }).seen.longest),
    ];
    console.log(
      `the desk, cold: ${Math.round(total / 1000)} kB of compressed script in ${sizes.size} files, ready after ${Math.round(ready)} ms, longest task ${Math.round(longest)} ms`,
    );
    expect(total).toBeLessThan(MOST_SCRIPT);
    expect(ready).toBeGreaterThan(0);
  });

  it('does not shift while it opens, nor while stages are chosen', async () => {
    const { desk, page } = await at.ownPage();
    await page.evaluateOnNewDocument(() => {
      const kept = window as unknown as { shifts: number };
      kept.shifts = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[]) {
          // What follows a person's own act is no shift.
          if (!entry.hadRecentInput) kept.shifts += entry.value;
        }
      }).observe({ type: 'layout-shift', buffered: true });
    });
    /** What has shifted since it was asked last. */
    const shifts = async (): Promise<number> => {
      await drawn(page);
      return page.evaluate(() => {
        const kept = window as unknown as { shifts: number };
        const sum = kept.shifts;
        kept.shifts = 0;
        return sum;
      });
    };
    await desk.open('fog-bank-breathing');
    const opening = await shifts();
    let choosing = 0;
    for (const stage of ['trim', 'join']) {
      await desk.stage(stage);
      // That its panel takes another's place is what was asked for, however long it took to come.
      await shifts();
      await desk.saved();
      choosing += await shifts();
    }
    console.log(`layout shift of the desk: ${opening.toFixed(4)} opening, ${choosing.toFixed(4)} after a choice`);
    expect(opening).toBeLessThan(0.02);
    expect(choosing).toBeLessThan(0.02);
  });

  it('asks for its patch once, and for no page that is only linked to', async () => {
    const { desk, page } = await at.newcomer();
    const asked: string[] = [];
    page.on('request', (request) => asked.push(new URL(request.url()).pathname));
    await desk.patches();
    await desk.open('fog-bank-breathing');
    await desk.saved();
    expect(asked.filter((path) => path === `/api/patches/${desk.id()}`)).toHaveLength(1);
    expect(asked.filter((path) => path.startsWith('/patches/'))).toEqual([`/patches/${desk.id()}`]);
  });

  it('can be read on a phone: nothing is wider than the screen but what scrolls by itself', async () => {
    const { desk, page } = at;
    await page.setViewport({ width: 390, height: 844 });
    await desk.patches();
    await page.waitForSelector('[data-patch]');
    const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
    expect(await wide()).toBeLessThanOrEqual(390);
    await desk.open('fog-bank-breathing');
    expect(await wide()).toBeLessThanOrEqual(390);
    await desk.stage('trim');
    await page.waitForSelector('[data-reading="tone.cutoff"]');
    expect(await wide()).toBeLessThanOrEqual(390);
  });

  it('brings up on a phone what is opened: issues, versions, a choice of destinations, a comparison', async () => {
    const { desk, page } = at;
    await page.setViewport({ width: 390, height: 844 });
    await desk.openItself('lamp-sweep-shut');
    const inSight = (panel: string) =>
      page.waitForFunction(
        (name) => {
          const { top = -1 } = document.querySelector(`[data-panel="${name}"]`)?.getBoundingClientRect() ?? {};
          return top >= 0 && top < innerHeight / 2;
        },
        {},
        panel,
      );
    const up = () => page.evaluate(() => window.scrollTo(0, 0));
    await up();
    await page.locator('[data-verdict] button[aria-label^=Explain]').click();
    await inSight('issues');
    await up();
    await page.locator('header [aria-label=More]').click();
    await page.locator('::-p-xpath(//*[@role="menuitem"][contains(., "History")])').click();
    await inSight('history');
    await up();
    await desk.button('Add destination');
    await inSight('task');
    await page.setViewport({ width: 1280, height: 800 });
    await desk.open('fog-bank-breathing');
    await desk.keepVariant('still');
    await page.setViewport({ width: 390, height: 844 });
    await page.locator('header [aria-label=More]').click();
    await page.locator('::-p-xpath(//*[@role="menuitem"][contains(., "Variants")])').click();
    await inSight('variants');
    await desk.button('Compare');
    await page.waitForFunction(
      () => (document.querySelector('section[aria-label^=Compared]')?.getBoundingClientRect().top ?? -1) >= 0,
    );
    await page.setViewport({ width: 1280, height: 800 });
  });

  it('moves nothing by itself where less motion is wished', async () => {
    const { desk, page } = at;
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await desk.open('fog-bank-breathing');
    await desk.stage('trim');
    const moving = await page.evaluate(
      () =>
        [...document.querySelectorAll('*')].filter((e) => {
          const { transitionDuration, animationName } = getComputedStyle(e);
          return animationName !== 'none' || transitionDuration.split(',').some((t) => Number.parseFloat(t) > 0);
        }).length,
    );
    expect(moving).toBe(0);
  });
});
