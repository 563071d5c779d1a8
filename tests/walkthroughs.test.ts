import { describe, expect, it } from 'vitest';
import { builtWalkthroughs } from '../core/practice/walkthroughs';
import { openPages } from './support/pages';

const { at } = openPages();

const step = (n: number, phase = 'resting') => at.page.waitForSelector(`[data-step="${n}"][data-phase=${phase}]`);
const value = async (): Promise<string> => {
  await at.page.waitForSelector('[data-look-current=true]');
  return at.page.$eval('[data-look-value]', (e) => (e as HTMLElement).innerText.replaceAll(/\s/g, ' '));
};
const overflow = (): Promise<number> => at.page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

describe('a walkthrough', () => {
  it('is played to its end by keyboard alone, asks before it shows, and shows what is predicted', async () => {
    const { page, desk } = at;
    await desk.goTo('/practice/walkthroughs');
    await page.waitForSelector('[data-walkthrough]');
    expect(await page.$$('[data-walkthrough]')).toHaveLength(builtWalkthroughs.length);
    await page.focus('[data-walkthrough="gain-and-offset"] a');
    await page.keyboard.press('Enter');
    await step(1);
    expect(await value()).toBe('16.0 Hz');
    await page.keyboard.press('ArrowRight');
    await step(2, 'asking');
    await page.waitForSelector('[data-question=asked]');
    expect(await page.$('[data-look-value]')).toBeNull();
    // The field has the focus: ±5 V through 0.4.
    await page.keyboard.type('-2');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-question=right]');
    await step(2);
    expect(await value()).toBe('−2.00 V');
    for (let n = 3; n <= 9; n++) {
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await page.keyboard.press('ArrowRight');
      const shown = await page.waitForSelector(`[data-step="${n}"]:is([data-phase=asking], [data-phase=resting])`);
      if (await shown!.evaluate((e) => e.getAttribute('data-phase') === 'asking')) {
        await page.waitForSelector('[data-question=asked]');
        await desk.button('Show me');
      }
      await step(n);
    }
    expect(await value()).toBe('8.00 kHz');
    await page.keyboard.press('ArrowLeft');
    await step(8);
    await page.keyboard.press('ArrowRight');
    await step(9);
    await desk.button('Finish');
    await page.waitForSelector('[data-walkthrough]');
  });

  it('lets one turn its knob and come back, runs by itself and pauses in the middle of a movement', async () => {
    const { page, desk } = at;
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'no-preference' }]);
    await desk.goTo('/practice/walkthroughs/bipolar-into-vca');
    await step(1);
    await page.focus('[role=slider][aria-label="Amp bias"]');
    for (let n = 0; n < 20; n++) await page.keyboard.press('ArrowUp');
    await expect.poll(value).not.toBe('50.0%');
    await desk.button('Come back');
    await expect.poll(value).toBe('50.0%');
    // Where a short sentence stands, before a step that turns a knob.
    await desk.goTo('/practice/walkthroughs/tremolo');
    await step(1);
    await page.focus('input[aria-label=Step]');
    for (let n = 1; n < 4; n++) await page.keyboard.press('ArrowRight');
    await step(4);
    const amount = () =>
      page.$eval('[role=slider][aria-label="Amp CV amount"]', (e) => Number(e.getAttribute('aria-valuenow')));
    // Paused as soon as it moves, however slow the machine is.
    await page.evaluate(() => {
      const section = document.querySelector('[data-phase]')!;
      new MutationObserver(() => {
        if (section.getAttribute('data-phase') !== 'moving') return;
        [...document.querySelectorAll('button')].find((b) => b.textContent === 'Pause')?.click();
      }).observe(section, { attributes: true });
    });
    await desk.button('Run by itself');
    await step(5, 'moving');
    await page.waitForSelector('::-p-xpath(//button[.="Go on"])');
    const held = await amount();
    await new Promise((done) => setTimeout(done, 300));
    expect(await amount()).toBe(held);
    expect(held).toBeLessThan(0.7);
    await desk.button('Go on');
    await step(5);
    expect(await amount()).toBeCloseTo(0.7, 6);
  });

  it('moves nothing by itself where motion is unwelcome, and fits a phone', async () => {
    const { page, desk } = at;
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await desk.goTo('/practice/walkthroughs/tremolo');
    await step(1);
    expect(await overflow()).toBeLessThanOrEqual(0);
    const phases = await page.evaluate(
      () =>
        new Promise<string[]>((done) => {
          const seen: string[] = [];
          const section = document.querySelector('[data-phase]')!;
          new MutationObserver(() => seen.push(section.getAttribute('data-phase') ?? '')).observe(section, {
            attributes: true,
          });
          [...document.querySelectorAll('button')].find((b) => b.textContent === 'Next')!.click();
          setTimeout(() => done(seen), 1500);
        }),
    );
    expect(phases.at(-1)).toBe('resting');
    await page.waitForSelector('[data-step="2"]');
    expect(await overflow()).toBeLessThanOrEqual(0);
  });

  it('is heard as it moves', async () => {
    const { page, desk } = at;
    await desk.goTo('/practice/walkthroughs/tremolo');
    await step(1);
    await desk.button('Play');
    await desk.button('I’ve turned it down').catch(() => undefined);
    await page.waitForSelector('[data-live=playing]');
    await desk.button('Next');
    await step(2);
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
  });
});

describe('a walkthrough of one’s own', () => {
  it('is recorded from what is done in the editor, gets its text, and is played, deleted and restored', async () => {
    const { page, desk } = at;
    await desk.open('fog-bank-breathing');
    await desk.menu('Help', 'Record a walkthrough');
    await page.waitForSelector('[data-recording]');
    await desk.stage('trim');
    await page.focus(desk.knob('amount'));
    for (let n = 0; n < 5; n++) await page.keyboard.press('PageUp');
    await page.waitForSelector('::-p-xpath(//*[@data-recording]//*[contains(., "1 step")])');
    await desk.button('Save and add text');
    await page.waitForSelector('[role=dialog] textarea[aria-label="Step 1"]');
    const title = await page.waitForSelector('[role=dialog] input[aria-label=Title]');
    await title!.click({ count: 3 });
    await title!.type('More fog');
    const text = await page.$('[role=dialog] textarea[aria-label="Step 1"]');
    await text!.click({ count: 3 });
    await text!.type('More gain: the fog breathes further.');
    await desk.button('Save');
    const link = await page.waitForSelector('::-p-xpath(//tr[@data-own]//a[.="More fog"])');
    await link!.click();
    await page.waitForSelector('::-p-xpath(//*[@data-caption][.="More gain: the fog breathes further."])');
    await step(1);
    await desk.goTo('/practice/walkthroughs');
    await desk.menu('More for More fog', 'Delete');
    await page.waitForFunction(() => document.querySelector('tr[data-own]') === null);
    await desk.button('Restore 1 walkthrough');
    await page.waitForSelector('tr[data-own]');
  });
});
