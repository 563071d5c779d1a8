import type { HTTPRequest, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { openPages } from './support/pages';
import { fetchPatch, storePatch } from './support/desk';
import { storedAt } from './support/stored';

/** What is seen and said: figures that lie apart, the patch’s own words, hands on keys alone, pages that are not there. */
const { at } = openPages();

/** What lies over something else in the strip that is shown: its writing, and what joins from beside. */
const overlaps = (page: Page) =>
  page.evaluate(() => {
    const svg = document.querySelector('[data-frame]')?.closest('svg');
    const boxes = [...(svg?.querySelectorAll('text') ?? [])]
      .map((e) => ({ text: e.textContent ?? '', box: e.getBoundingClientRect() }))
      .filter(({ text, box }) => text.trim() && box.width > 0);
    const meets = (a: DOMRect, b: DOMRect): boolean =>
      Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 &&
      Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 3;
    const joining = [...(svg?.querySelectorAll('[data-joining]') ?? [])];
    const beside = joining.flatMap((path) => [...path.querySelectorAll('text')]);
    const strips = joining.flatMap((path) => [...path.querySelectorAll('rect')]);
    return {
      count: boxes.length,
      over: [
        ...boxes.flatMap((a, i) =>
          boxes.slice(i + 1).flatMap((b) => (meets(a.box, b.box) ? [`${a.text} / ${b.text}`] : [])),
        ),
        ...beside
          .filter((e) => strips.some((s) => meets(s.getBoundingClientRect(), e.getBoundingClientRect())))
          .map((e) => `${e.textContent} on a strip that joins`),
      ],
    };
  });

describe('the strip’s figures', () => {
  it('lie over one another at no end of the demo patches, at none of three sizes', async () => {
    const { page, desk } = at;
    const ids = Object.keys((await storedAt(at.url)).patches);
    expect(ids.length).toBeGreaterThanOrEqual(7);
    for (const id of ids) {
      await page.setViewport({ width: 1280, height: 800 });
      await desk.openItself(id);
      const ends = await page.$$eval('[data-end]', (all) => all.map((e) => e.getAttribute('data-end') ?? ''));
      for (const [width, height] of [
        [1280, 800],
        [1600, 1000],
        [390, 844],
      ] as const) {
        await page.setViewport({ width, height });
        await page.waitForFunction((w) => innerWidth === w, {}, width);
        for (const end of ends) {
          await page.$eval(`[data-end="${end}"]`, (e) => (e as HTMLElement).click());
          await page.waitForSelector(`[data-end="${end}"][aria-pressed=true]`);
          await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
          const { count, over } = await overlaps(page);
          expect(count).toBeGreaterThan(5);
          expect.soft({ end: `${id} ${end}`, width, over }).toEqual({ end: `${id} ${end}`, width, over: [] });
        }
      }
    }
  });

  it('show one period of a path that repeats, and all of it again', async () => {
    const { page, desk } = at;
    const sweep = {
      format: 'fenvo.patch',
      version: 1,
      settings: { duration: 10 },
      modules: [
        { id: 'swell', kind: 'lfo', params: { rateHz: 0.5 } },
        { id: 'tone', kind: 'filter' },
      ],
      cables: [{ from: 'swell.out', to: 'tone.cutoff' }],
    };
    await desk.openItself(await storePatch(at.url, sweep));
    const spans = '[aria-label="Time span shown"]';
    const ticks = () => page.$$eval('[data-time-ruler] text', (all) => all.map((e) => e.textContent).join());
    const whole = await ticks();
    await page.click(`${spans} [value=period]:not([disabled])`);
    await page.waitForFunction(
      (was) => [...document.querySelectorAll('[data-time-ruler] text')].map((e) => e.textContent).join() !== was,
      {},
      whole,
    );
    await page.click(`${spans} [value=whole]`);
    await page.waitForFunction(
      (was) => [...document.querySelectorAll('[data-time-ruler] text')].map((e) => e.textContent).join() === was,
      {},
      whole,
    );
  });
});

describe('a field', () => {
  it('keeps what it refuses, with the reason; Escape takes it back, and whole names alone are taken', async () => {
    const { page, desk } = at;
    await desk.open('lamp-sweep-shut');
    const before = await desk.stored();
    const put = async (field: string, text: string) => {
      await desk.fill(field, text);
      await desk.keys('Enter');
      return desk.field(field);
    };
    await desk.tab('patch');
    await desk.section('patch settings');
    const tempo = '[data-panel=patch] input[aria-label=Tempo]';
    expect(await put(tempo, 'brisk')).toEqual({ text: 'brisk', fault: 'From 1 to 999 BPM.' });
    expect(await put(tempo, '1000')).toEqual({ text: '1000', fault: 'From 1 to 999 BPM.' });
    await desk.keys('Escape');
    expect(await desk.field(tempo)).toEqual({ text: String(before.settings.bpm), fault: '' });
    expect(await put(tempo, '96 bpm')).toEqual({ text: '96', fault: '' });

    const name = '[aria-label="Patch"] input[aria-label^=Name]';
    expect((await put(name, '  ')).text).toBe(before.name);
    await put(name, ' Lamp sweep, slower ');

    await desk.stage('beam');
    await desk.section('hardware');
    const [unity, limit] = ['[data-setting=unityVolts] input', '[data-setting=limitVolts] input'];
    expect((await put(unity, '13')).fault).toBe('Must be between 0.5 and 12.');
    await desk.keys('Escape');
    await page.waitForSelector('[data-stage=beam]');
    expect(await desk.field(unity)).toMatchObject({ fault: '' });
    for (const [text, shown] of [
      ['8V', '+8.00\u00a0V'],
      ['none', 'none'],
    ] as const) {
      await put(limit, text);
      await expect.poll(() => desk.field(limit)).toEqual({ text: shown, fault: '' });
    }
    const kept = await desk.kept();
    expect(kept).toMatchObject({ name: 'Lamp sweep, slower', settings: { ...before.settings, bpm: 96 } });
    expect(kept.modules.find((m) => m.id === 'beam')?.params).toEqual({ bias: 0, cvAmount: 1, limitVolts: null });
  });
});

describe('a patch’s own words', () => {
  it('are kept: tags, notes and a name, and found from the list', async () => {
    const { page, desk } = at;
    await desk.fresh();
    await desk.tab('patch');
    await desk.button('Add a tag');
    await page.waitForSelector('[aria-label="Patch"] [aria-label="Tags"]:focus');
    await page.keyboard.type('storm');
    await desk.keys('Enter');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[aria-label="Patch"] .MuiChip-label')].some((e) => e.textContent === 'storm'),
    );
    await page.type('[aria-label="Notes"]', 'Hail on the tin roof, slowly.');
    await desk.keys('Tab');
    const { notes } = await desk.kept();
    expect(notes).toBe('Hail on the tin roof, slowly.');
    const id = desk.id();

    await desk.patches();
    await page.type('[aria-label="Search patches"]', 'tin roof');
    await page.waitForFunction(
      (own) => [...document.querySelectorAll('[data-patch]')].map((e) => e.getAttribute('data-patch')).join() === own,
      {},
      id,
    );
    await page.click('[data-tag=storm]');
    await page.waitForSelector('[data-tag=storm][aria-pressed=true]');
    expect(await page.$$eval('[data-patch]', (all) => all.length)).toBe(1);
    expect((await fetchPatch(at.url, id)).patch.notes).toBe('Hail on the tin roof, slowly.');
  });

  it('sort the patches list, and several patches are tagged and deleted at once', async () => {
    const { page, desk } = at;
    for (const name of ['Rain on slate', 'Rain on canvas'])
      await storePatch(at.url, { format: 'fenvo.patch', version: 1, name });
    await desk.patches();
    const names = () => page.$$eval('[data-patch] input', (all) => all.map((e) => e.getAttribute('aria-label') ?? ''));
    const first = (name: string) => page.waitForSelector(`[data-index="0"] [aria-label="Select ${name}"]`);
    const count = (n: number) => page.waitForSelector(`[aria-label=Patches][aria-rowcount="${n + 1}"]`);
    await page.type('[aria-label="Search patches"]', 'rain on');
    await count(2);
    const sort = () => page.click('::-p-xpath(//*[@role="columnheader"]//*[text()="Name"])');
    await sort();
    await first('Rain on canvas');
    expect(await names()).toEqual(['Select Rain on canvas', 'Select Rain on slate']);
    await sort();
    await first('Rain on slate');
    expect(await names()).toEqual(['Select Rain on slate', 'Select Rain on canvas']);

    await page.click('[aria-label="Select Rain on slate"]');
    await page.click('[aria-label="Select Rain on canvas"]');
    await page.waitForSelector('[aria-label="Selected patches"]');
    await desk.button('Tag');
    await page.type('[role=dialog] [aria-label="Tags"]', 'weather');
    await desk.keys('Enter');
    await page.click('::-p-xpath(//*[@role="dialog"]//button[text()="Add"])');
    await page.waitForSelector('[data-tag=weather]');
    await page.click('[data-tag=weather]');
    await desk.fill('[aria-label="Search patches"]', ' ');
    await count(2);
    await page.click('[data-tag=weather]');
    await page.waitForFunction(() => Number(document.querySelector('[aria-rowcount]')?.ariaRowCount) > 3);
    const before = Number(await page.$eval('[aria-rowcount]', (e) => e.ariaRowCount)) - 1;

    await page.click('::-p-xpath(//*[@aria-label="Selected patches"]//button[text()="Delete"])');
    await count(before - 2);
    await desk.button('Undo');
    await count(before);
  });
});

describe('files that are dropped in the list', () => {
  it('come in one at a time: several bring nothing, and it is said; one is opened', async () => {
    const { page, desk } = at;
    await desk.patches();
    const drop = (...names: string[]) =>
      page.$eval(
        '[aria-label="Patch file"]',
        (input, list) => {
          const dataTransfer = new DataTransfer();
          for (const name of list) {
            const text = JSON.stringify({ format: 'fenvo.patch', version: 1, name });
            dataTransfer.items.add(new File([text], `${name}.json`, { type: 'application/json' }));
          }
          input.parentElement?.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }));
        },
        names,
      );
    const before = Object.keys((await storedAt(at.url)).patches);
    await drop('Low tide', 'High tide');
    await page.waitForSelector('::-p-xpath(//*[@role="alert"][contains(., "One file at a time")])');
    expect(Object.keys((await storedAt(at.url)).patches)).toEqual(before);
    await drop('Low tide');
    await page.waitForFunction(() => location.pathname.startsWith('/patches/'));
    await desk.saved();
    expect(await desk.stored()).toMatchObject({ name: 'Low tide', modules: [] });
  });
});

describe('hands on keys', () => {
  it('hear why a key does nothing, put a stage behind a source, and lock a setting', async () => {
    const { page, desk } = at;
    await desk.fresh();
    await desk.keys('p');
    await page.waitForSelector('[data-why-not]');
    expect(await page.$eval('[data-why-not]', (e) => e.getAttribute('data-why-not'))).toMatch(/\w+ \w+/);

    await desk.open('fog-bank-breathing');
    const [source] = await desk.frames();
    await desk.stage(source!);
    await desk.keys('i');
    await page.waitForSelector('[data-chooser] input:focus');
    // Typed as fast as hands can: nothing of it is lost, none of it is a key of the editor.
    await page.keyboard.type('glide');
    await desk.keys('Enter');
    await page.waitForSelector('[data-chooser]', { hidden: true });
    await page.waitForSelector('[data-stage=slew]');
    expect((await desk.frames())[1]).toBe('slew');
    await desk.keys('k');
    await page.waitForSelector('[data-stage=slew] [role=slider]:focus');
    // A digit begins the entry; Tab goes to the next knob, past the locks.
    await page.keyboard.type('0.3s');
    await desk.keys('Enter');
    await page.waitForSelector('[data-stage=slew] [role=slider]:focus');
    await desk.keys('Tab');
    expect(await page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('slider');
    await desk.keys('Shift+Tab');
    await desk.keys('l');
    const patch = await desk.kept();
    expect(patch.modules.find((m) => m.id === 'slew')?.params).toMatchObject({ rise: 0.3 });
    expect(patch.modules.find((m) => m.id === 'slew')?.locked).toHaveLength(1);
  });
});

describe('a button pressed before the page runs', () => {
  it('does its work once the page runs, and only once', async () => {
    const { page } = await at.ownPage();
    const held: HTTPRequest[] = [];
    let holds = true;
    await page.setRequestInterception(true);
    page.on('request', (request) => {
      if (holds && request.resourceType() === 'script') held.push(request);
      else void request.continue();
    });
    await page.goto(`${at.url}/bench`, { waitUntil: 'domcontentloaded' });
    const button = page.locator('::-p-xpath(//button[contains(., "New session")])');
    await button.click();
    await button.click();
    expect(held.length).toBeGreaterThan(0);
    expect(await page.$('[role=dialog]')).toBeNull();
    holds = false;
    await Promise.all(held.map((request) => request.continue()));
    await page.waitForSelector('[role=dialog] [data-picker=Patch]');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[role=dialog]', { hidden: true });
  });
});

describe('a page that is not there', () => {
  it('says so in the product’s own words, and leads back', async () => {
    const { page } = at;
    at.expectFault(/404/);
    await page.goto(`${at.url}/nowhere`, { waitUntil: 'domcontentloaded' });
    expect(await page.$eval('h1', (e) => e.textContent)).toBe('Page not found');
    await page.click('a[href="/"]');
    await page.waitForSelector('[data-patch]');
  });
});
