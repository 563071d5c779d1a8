import { describe, expect, it } from 'vitest';
import type { KeyInput, Page } from 'puppeteer-core';
import { worked } from '../core/practice';
import type { Level, PracticeAnswer } from '../core/practice';
import { openPages } from './support/pages';

const { at } = openPages();

const overflow = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

/** The exercise that stands there, with its truth. */
async function there(page: Page) {
  const shown = await page.waitForSelector('[data-exercise]:not([data-exercise=""])');
  const text = await shown!.evaluate((e) => e.getAttribute('data-exercise') ?? '');
  const [skill = '', level, seed] = text.split(' ');
  return worked(skill, Number(level) as Level, Number(seed));
}

const answers = async (): Promise<readonly PracticeAnswer[]> => {
  const read = await fetch(`${at.url}/api/practice`);
  return ((await read.json()) as { answers: PracticeAnswer[] }).answers;
};

/** A new skill begins with a worked example; one that was practised before does not. */
async function pastExample(page: Page): Promise<void> {
  const first = await page.waitForSelector(
    '::-p-xpath(//button[.="Now you"] | //*[@data-exercise][string-length(@data-exercise) > 0])',
  );
  if (await first!.evaluate((e) => e.tagName === 'BUTTON')) await at.desk.button('Now you');
}

async function practise(page: Page, skill: string): Promise<void> {
  await at.desk.goTo('/practice');
  const button = await page.waitForSelector(
    `[data-skill="${skill}"] ::-p-xpath(.//button[normalize-space()="Practise"])`,
  );
  await button!.click();
  await pastExample(page);
}

describe('practice', () => {
  it('asks with the answer covered, marks it, says which mistake it was, and keeps how it went', async () => {
    const { page, desk } = at;
    await practise(page, 'gain-offset');
    const { truth, slips } = await there(page);
    const { low, high } = truth as { low: number; high: number };
    await page.waitForSelector('[data-covered]');
    const slip = slips.find((s) => s.text === 'That forgets the offset.')!.answer as typeof truth & {
      low: number;
      high: number;
    };
    await page.type('input[aria-label=Lowest]', String(slip.low));
    await page.type('input[aria-label=Highest]', String(slip.high));
    await page.keyboard.press('Enter');
    const mark = await page.waitForSelector('[data-mark=wrong], [data-mark=half]');
    expect(await mark!.evaluate((e) => e.textContent)).toContain('That forgets the offset.');
    // Nothing stays covered.
    await page.waitForFunction(() => document.querySelector('[data-covered]') === null);
    await desk.button('Another like this');
    const other = await there(page);
    const right = other.truth as typeof slip;
    expect([right.low, right.high]).not.toEqual([low, high]);
    await page.waitForSelector('input[aria-label=Lowest]');
    await page.type('input[aria-label=Lowest]', `${right.low} V`);
    await page.type('input[aria-label=Highest]', String(right.high).replace('.', ','));
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-mark=right]');
    const kept = async () => (await answers()).filter((a) => a.skill === 'gain-offset');
    await expect.poll(async () => (await kept()).map((a) => a.score)).toEqual([expect.any(Number), 1]);
    expect((await kept())[0]).toMatchObject({ skill: 'gain-offset', level: 1, slip: 'That forgets the offset.' });
  });

  it('is answered by choice, by pointer and by measuring', async () => {
    const { page, desk } = at;
    await practise(page, 'which-trace');
    const trace = await there(page);
    const { choice } = trace.truth as { choice: number };
    await (await page.waitForSelector(`[data-choice="${choice}"]`))!.click();
    await page.waitForSelector('[data-mark=right]');
    // What was right is explained to who asks for it.
    await desk.button('Why');
    await page.waitForSelector('[aria-label="How it comes about"]');

    await practise(page, 'phase');
    const { truth } = await there(page);
    if ('choice' in truth) {
      await page.waitForSelector('[data-choice]');
      await page.keyboard.press(String(truth.choice + 1) as KeyInput);
      await page.waitForSelector('[data-mark=right]');
    }

    await practise(page, 'set-one');
    await page.waitForSelector('[data-pointer="both.amount"]');
    await desk.button('Answer');
    await page.waitForSelector('[data-mark=wrong], [data-mark=half]');

    await practise(page, 'find-fault');
    const { drawn } = await there(page);
    await page.waitForSelector('[data-select="Measure at"]');
    await desk.button('Measure');
    await page.waitForSelector('[data-measured]');
    await page.click('input[role=combobox]');
    const first = await page.waitForSelector('[role=option]');
    await first!.click();
    await desk.button('Answer after 1 socket');
    await page.waitForSelector('[data-mark]');
    expect(drawn.fault).toBeDefined();
  });

  it('begins a sitting on a phone, and shows how it went', async () => {
    const { page, desk } = at;
    await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await desk.goTo('/practice');
    expect(await overflow(page)).toBeLessThanOrEqual(0);
    await desk.button('Start a sitting');
    await pastExample(page);
    await there(page);
    await page.waitForSelector('input, [data-choice]');
    expect(await overflow(page)).toBeLessThanOrEqual(0);
    await desk.button('End sitting');
    const tab = await page.waitForSelector('::-p-xpath(//*[@role="tab"][normalize-space()="Progress"])');
    await tab!.click();
    await page.waitForSelector('[aria-label="Stability by skill"] tbody tr');
    expect(await overflow(page)).toBeLessThanOrEqual(0);
    await desk.button('Remove all answers');
    await page.waitForFunction(() => /No answers yet/.test(document.body.textContent ?? ''));
    const restore = await page.waitForSelector('::-p-xpath(//button[starts-with(normalize-space(), "Restore ")])');
    await restore!.click();
    await page.waitForSelector('[aria-label="Stability by skill"] tbody tr');
  });

  it('shows a new skill as a worked example, and lets one hear two renderings', async () => {
    const { page, desk } = at;
    await desk.goTo('/practice');
    const byEar = await page.waitForSelector('input[role=switch]');
    expect(await page.$('[data-skill="hear-deeper"]')).toBeNull();
    await byEar!.click();
    const button = await page.waitForSelector('[data-skill="hear-deeper"] ::-p-xpath(.//button[.="Practise"])');
    await button!.click();
    await page.waitForSelector('::-p-xpath(//h2[contains(., "Worked example")])');
    await pastExample(page);
    const { truth } = await there(page);
    await page.waitForSelector('[data-care]');
    await desk.button('I’ve turned it down');
    await page.waitForSelector('[data-ear=silent]');
    await desk.button('Play first');
    await page.waitForSelector('[data-ear=here]');
    await desk.button('Play second');
    await page.waitForSelector('[data-ear=there]');
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-ear=silent]');
    await page.keyboard.press(String((truth as { choice: number }).choice + 1) as KeyInput);
    await page.waitForSelector('[data-mark=right]');
  });

  it('asks about a patch of one’s own, stage by stage', async () => {
    const { page, desk } = at;
    await desk.goTo('/');
    await desk.button('Actions for Fog bank breathing');
    const item = await page.waitForSelector('::-p-xpath(//*[@role="menuitem"][.="Practise this patch"])');
    await item!.click();
    await page.waitForSelector('[data-covered]');
    await page.waitForSelector('input[aria-label=Lowest]');
    // An LFO of ±5 V through a gain of 0.4, lifted by 2 V.
    await page.type('input[aria-label=Lowest]', '0');
    await page.type('input[aria-label=Highest]', '4');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-mark=right]');
    for (;;) {
      await desk.button('Next');
      const next = await page.waitForSelector('[data-own-end], input[aria-label=Lowest], input[aria-label=Answer]');
      if (await next!.evaluate((e) => e.hasAttribute('data-own-end'))) break;
      for (const input of await page.$$('form input')) await input.type('1');
      await page.keyboard.press('Enter');
      await page.waitForSelector('[data-mark]');
    }
    expect(await page.$eval('[data-own-end]', (e) => e.textContent)).toMatch(/^\d+ of \d+ questions? right/);
  });
});
