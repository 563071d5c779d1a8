import { describe, expect, it } from 'vitest';
import { predict } from '@/core';
import { openPages } from './support/pages';

/** Journeys in actions: a press, a choice from a list (two), a figure typed. */
const { at } = openPages();

class Actions {
  count = 0;

  async press(selector: string): Promise<void> {
    this.count++;
    await at.page.locator(selector).click();
  }

  /** Opens a list and takes one of it: two presses. */
  async choose(list: string, value: string): Promise<void> {
    this.count += 2;
    await at.page.locator(`${list}[role=combobox]`).click();
    await at.page.locator(`[role=listbox] [data-value="${value}"]`).click();
    await at.page.waitForSelector('[role=listbox]', { hidden: true });
  }
}

const named = (text: string, within = '') => `::-p-xpath(${within}//button[normalize-space(.)="${text}"])`;

describe('counted in actions', () => {
  it('“200 Hz to 3 kHz” with one’s own rack, as far as the sheet: at most 9', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.patches();
    const act = new Actions();
    await act.press('[data-door="From a target"]');
    await act.choose('[role=dialog] [aria-label="Rack in use"]', 'pier-rack');
    act.count++;
    await desk.fill('[role=dialog] [aria-label=Min]', '200 Hz to 3 kHz');
    await page.waitForFunction(() => document.querySelector('[data-goal=true]')?.textContent?.includes('3.00'));
    await act.press(named('Open in editor'));
    await page.waitForSelector('[data-verdict=good]');
    await desk.saved();
    await act.press('[aria-label="Patch sheet"]');
    await page.waitForSelector('[data-step]');
    expect(act.count).toBeLessThanOrEqual(9);
  });

  it('from the first screen to a demo patch that sounds: 2, and the caution once', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.patches();
    const act = new Actions();
    await act.press('[data-patch="storm-one-fader-five-ends"] a');
    await desk.simulated();
    await act.press('[aria-label=Play]');
    await page.locator(named('I’ve turned it down')).click();
    await page.waitForSelector('[data-live=playing]');
    expect(act.count).toBeLessThanOrEqual(2);
    await desk.keys('Escape');
    await page.locator('[aria-label=Stop]').click();
    await page.waitForSelector('[data-live=idle]');
  });

  it('ducking of 12 dB from a recipe: at most 7', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.patches();
    const act = new Actions();
    await act.press('[data-door="From a recipe"]');
    await act.press('[data-recipe=duck-trigger] button');
    await page.waitForSelector('[data-frame]');
    await desk.simulated();
    await act.press('[data-end="amp.cv"]');
    await act.press('#tab-destination');
    await act.choose('[aria-label^="Add a target for"]', 'ducks');
    await act.press('[data-verdict] .MuiButton-contained');
    await page.waitForSelector('[data-end="amp.cv"] [data-wanted=true]');
    const reading = predict(await desk.kept()).readings.find((r) => r.at === 'amp.cv')!;
    expect(reading.high! - reading.seenLow!).toBeCloseTo(12, 0);
    expect(act.count).toBeLessThanOrEqual(7);
  });

  it('by Tab, the third patch of the list is under 12 presses away', async () => {
    const { desk, page } = await at.ownPage();
    await desk.keep({ guide: 'off', welcome: false });
    await desk.patches();
    const third = await page.$$eval('[data-patch]', (all) => all[2]?.getAttribute('data-patch') ?? '');
    const reached = () =>
      page.evaluate((id) => document.activeElement?.closest(`[data-patch="${id}"]`) !== null, third);
    const inList = () => page.evaluate(() => Boolean(document.activeElement?.closest('[data-patch]')));
    let presses = 0;
    while (!(await reached()) && presses < 20) {
      const skip = await page.evaluate(() => document.activeElement?.getAttribute('href') === '#patches');
      await page.keyboard.press(skip ? 'Enter' : (await inList()) ? 'ArrowDown' : 'Tab');
      presses++;
    }
    expect(presses).toBeLessThan(12);
  });
});
