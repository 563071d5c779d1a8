import { describe, expect, it } from 'vitest';
import { predict } from '@/core';
import { storePatch } from './support/desk';
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

  /** Opens a chooser and takes one of it: two presses. */
  async add(button: string, key: string): Promise<void> {
    await this.press(button);
    this.count++;
    await at.desk.choose(key);
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

  it('a tremolo by hand that never closes: at most 22', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.patches();
    const act = new Actions();
    await act.press('[data-door="Empty patch"]');
    await page.waitForFunction(() => /\/patches\//.test(location.pathname));
    await act.add(named('Add destination'), 'vca.cv');
    await act.add('::-p-xpath(//button[contains(., "Choose a source for")])', 'lfo');
    await act.press('[data-frame=vca]');
    await act.add('[aria-label="Choose a source for In"]', 'oscillator');
    // What the line over the path proposes first, until it has nothing more.
    await act.press('[data-verdict=error] .MuiButton-contained');
    await page.waitForSelector('[data-verdict]:not([data-verdict=error])');
    const { readings, findings } = predict(await desk.kept());
    const reading = readings.find((r) => r.at === 'vca.cv')!;
    // At the lowest voltage it touches silence, for one sample of each cycle.
    expect(reading.shutPercent).toBeLessThan(0.01);
    expect(reading.driveVolts![1]).toBeGreaterThan(reading.driveVolts![0] + 0.5);
    expect(findings.filter((f) => f.severity === 'error')).toEqual([]);
    expect(act.count).toBeLessThanOrEqual(22);
  });

  it('a rack of one’s own with six modules: at most 12', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.patches();
    const act = new Actions();
    await act.press('::-p-xpath(//header//a[normalize-space(.)="Racks"])');
    await page.waitForSelector('[data-saving=saved]');
    await act.press('[aria-label="New rack"]');
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "This rack is empty")])');
    await act.press('::-p-xpath(//main//button[contains(., "Add module")])');
    for (const module of ['LFO', 'Scale and offset', 'VCA', 'Mixer', 'Filter', 'Oscillator'])
      await act.press(`::-p-xpath((//*[@role="dialog"]//button[starts-with(@aria-label, "Add ${module}")])[1])`);
    await act.press('::-p-xpath(//button[contains(., "Done")])');
    await page.waitForFunction(() => document.querySelectorAll('[data-rack-module]').length === 6);
    expect(act.count).toBeLessThanOrEqual(12);
  });

  it('a glide that arrives, between a melody and its oscillator: at most 6', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    const melody = {
      format: 'fenvo.patch',
      version: 1,
      name: 'Melody',
      modules: [
        { id: 'beat', kind: 'clock', params: { bpm: 120 } },
        {
          id: 'notes',
          kind: 'sequencer',
          params: { steps: [0, 1, 0.25, 1.5].map((volts) => ({ volts })) },
        },
        { id: 'voice', kind: 'oscillator' },
        { id: 'out', kind: 'lineOut' },
      ],
      cables: [
        { from: 'beat.out', to: 'notes.clock' },
        { from: 'notes.cv', to: 'voice.pitch' },
        { from: 'voice.sine', to: 'out.left' },
      ],
    };
    await desk.openItself(await storePatch(at.url, melody));
    const act = new Actions();
    await act.press('[data-end="voice.pitch"]');
    await act.add('[aria-label^="Insert a stage before"]', 'slew');
    act.count += 2;
    await desk.type('rise', '5');
    await desk.type('fall', '5');
    await act.press('[data-verdict=warning] .MuiButton-contained');
    await page.waitForSelector('[data-verdict]:not([data-verdict=warning])');
    const patch = await desk.kept();
    const { rise, fall } = patch.modules.find((m) => m.kind === 'slew')!.params ?? {};
    expect(Math.min(Number(rise), Number(fall))).toBeGreaterThan(0.1);
    expect(predict(patch).findings.filter((f) => f.code === 'lag-late')).toEqual([]);
    expect(act.count).toBeLessThanOrEqual(6);
  });

  it('from an empty cell of the map to a route: 2', async () => {
    const { desk, page } = at;
    await desk.keep({ guide: 'off' });
    await desk.open('storm-one-fader-five-ends');
    await page.locator('[value=map]').click();
    await page.waitForSelector('[data-map] [data-reach=none]');
    const act = new Actions();
    const says = await page.$eval('[data-map] [data-reach=none]', (e) => e.getAttribute('aria-label') ?? '');
    expect(says).toMatch(/does not reach .* Suggest a route\.$/);
    const before = (await desk.stored()).cables;
    await act.press('[data-map] [data-reach=none]');
    await page.waitForSelector('[data-proposal="1"]', { timeout: 30_000 });
    await act.press('::-p-xpath(//*[@data-proposal="1"]//button[normalize-space(.)="Apply"])');
    await page.waitForFunction((text) => !document.querySelector(`[aria-label="${text}"]`), { timeout: 30_000 }, says);
    expect((await desk.kept()).cables).not.toEqual(before);
    expect(act.count).toBe(2);
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
