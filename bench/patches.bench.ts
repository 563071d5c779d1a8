import type { Page } from 'puppeteer-core';
import { printPatch, printRack } from '../core';
import { moduleOfType, catalogue } from '../core/rack/catalogue';
import { blankRack } from '../core/document/rackTypes';
import { randomPatch } from '../core/testing/randomPatch';
import { summarise } from '../server/beside/summary';
import { openDatabase } from '../server/database';
import { PatchRow, RackRow } from '../server/models';
import { launchBrowser } from '../tests/support/browser';
import { Application } from '../tests/support/setup';
import { quantile, row } from './figures';
import { writeSection } from './section';

/** A library at size: its first rows, searches, scrolling and racks, on the built application. Figures, no verdict. */
const PATCHES = 10_000;
const RACKS = 200;
/** Documents that differ; the others are these under other names. */
const DOCUMENTS = 80;
const AT_ONCE = 500;

const WORDS = 'harbour lantern fog gull tide winch rope mast keel beacon storm calm drift anchor pier slate'.split(' ');
const word = (n: number): string => WORDS[n % WORDS.length] ?? '';
const nameOf = (n: number): string => `${word(n)} ${word(n * 7 + 3)} ${n}`;

async function fill(folder: string): Promise<void> {
  const db = await openDatabase(folder);
  const made = Array.from({ length: DOCUMENTS }, (_, seed) => {
    const patch = randomPatch(seed, { loops: false, duration: 0.05 });
    return { document: printPatch(patch), summary: JSON.stringify({ summary: summarise(patch), fault: null }) };
  });
  const now = Date.now();
  for (let from = 0; from < PATCHES; from += AT_ONCE) {
    const rows = Array.from({ length: AT_ONCE }, (_, i) => {
      const n = from + i;
      const { document, summary } = made[n % DOCUMENTS] ?? { document: {}, summary: null };
      const at = new Date(now - n * 60_000);
      return {
        id: `made-${n}`,
        revision: 1,
        name: nameOf(n),
        body: JSON.stringify({ ...document, name: nameOf(n), notes: `${word(n * 3)} before ${word(n * 5 + 1)}` }),
        tags: JSON.stringify([`act ${n % 5}`, word(n * 11)]),
        summary,
        summaryRevision: 1,
        createdAt: at,
        updatedAt: at,
        deletedAt: null,
      };
    });
    await db.write((transaction) => PatchRow.bulkCreate(rows, { transaction }));
  }
  const types = catalogue.flatMap((c) => c.types.map((t) => t.type));
  const racks = Array.from({ length: RACKS }, (_, n) => {
    const modules = Array.from({ length: 24 }, (_, k) =>
      moduleOfType(types[(n + k * 3) % types.length] ?? '', `m${k}`),
    );
    const rack = { ...blankRack, name: `Rack ${n}`, modules: modules.flatMap((m) => m ?? []) };
    const at = new Date(now);
    const body = JSON.stringify(printRack(rack));
    return { id: `rack-${n}`, revision: 1, name: rack.name, body, createdAt: at, updatedAt: at, deletedAt: null };
  });
  await db.write((transaction) => RackRow.bulkCreate(racks, { transaction }));
  await db.sequelize.close();
}

const lines: string[] = [];
function told(what: string, figures: string): void {
  console.log(`${what}: ${figures}`);
  lines.push(`| ${what} | ${figures} |`);
}

const application = await Application.open();
await application.stop('SIGTERM');
const filling = performance.now();
await fill(application.data);
console.log(`${PATCHES} patches and ${RACKS} racks stored in ${((performance.now() - filling) / 1000).toFixed(0)} s`);
await application.start();

async function post(path: string, body: object): Promise<{ total: number; pending: number }> {
  const init = { method: 'POST', body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  const response = await fetch(`${application.url}/api/patches/${path}`, init);
  if (!response.ok) throw new Error(await response.text());
  return (await response.json()) as { total: number; pending: number };
}
async function timed(what: string, times: number, ask: (k: number) => Promise<unknown>): Promise<void> {
  await ask(0);
  const taken: number[] = [];
  for (let k = 0; k < times; k++) {
    const start = performance.now();
    await ask(k);
    taken.push(performance.now() - start);
  }
  told(what, row(taken));
}

await timed('Server: the first 60 rows', 20, () => post('search', {}));
await timed('Server: 60 rows from the midst', 20, (k) => post('search', { from: 5000 + 60 * k }));
await timed('Server: a word', 40, (k) => post('search', { words: word(k) }));
await timed('Server: two words, the second half typed', 40, (k) =>
  post('search', { words: `${word(k)} ${word(k * 7 + 3).slice(0, 3)}` }),
);
await timed('Server: what a module is called', 20, (k) =>
  post('search', { words: ['slew', 'vca', 'lfo', 'clock'][k % 4] }),
);
await timed('Server: uses a slew', 20, () => post('search', { uses: 'slew' }));
await timed('Server: reaches a pitch', 20, () => post('search', { only: ['pitch'] }));
await timed('Server: has issues, by issues', 20, () => post('search', { only: ['issues'], by: 'findings' }));
await timed('Server: by name, a tag', 20, (k) => post('search', { tags: [word(k)], by: 'name', down: false }));
await timed('Server: counts, tags and kinds of all', 10, () =>
  fetch(`${application.url}/api/patches/about`).then((r) => r.json()),
);
const checking = performance.now();
while ((await post('search', { rack: 'rack-1', only: ['fits'] })).pending > 0)
  await new Promise((resolve) => setTimeout(resolve, 500));
told(`Server: all ${PATCHES} checked against a rack`, `${((performance.now() - checking) / 1000).toFixed(1)} s once`);
await timed('Server: fits that rack, from then on', 20, () => post('search', { rack: 'rack-1', only: ['fits'] }));

const { browser, close } = await launchBrowser();

/** From the navigation’s start until something is painted that holds rows, milliseconds. */
async function firstRows(page: Page): Promise<{ painted: number; ready: number }> {
  await page.goto(application.url, { waitUntil: 'domcontentloaded' });
  await page.waitForSelector('[data-patch]');
  const painted = await page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        new PerformanceObserver((list) =>
          list.getEntriesByName('first-contentful-paint').forEach((e) => resolve(e.startTime)),
        ).observe({ type: 'paint', buffered: true });
      }),
  );
  await page.waitForSelector('[data-placed]');
  return { painted, ready: await page.evaluate(() => performance.now()) };
}
const painted: number[] = [];
const ready: number[] = [];
for (let i = 0; i < 8; i++) {
  const page = await browser.newPage();
  const taken = await firstRows(page);
  if (i > 0) {
    painted.push(taken.painted);
    ready.push(taken.ready);
  }
  await page.close();
}
told('Browser: first rows painted after navigation', row(painted));
told('Browser: rows answer to the keys and scroll', row(ready));

const page = await browser.newPage();
await firstRows(page);
await page.waitForFunction(
  (n) => document.querySelector('[aria-rowcount]')?.getAttribute('aria-rowcount') === n,
  {},
  String(PATCHES + 9),
);
await new Promise((resolve) => setTimeout(resolve, 2000));

/** Gaps between frames, and tasks over 50 ms, at a scroll of that many pixels a frame, down and back. */
const scrolled = (each: number) =>
  page.evaluate(
    (pixels) =>
      new Promise<{ gaps: number[]; long: number[] }>((resolve) => {
        const FRAMES = 600;
        const gaps: number[] = [];
        const long: number[] = [];
        const observer = new PerformanceObserver((list) => list.getEntries().forEach((e) => long.push(e.duration)));
        observer.observe({ type: 'longtask' });
        let last = performance.now();
        const tick = (): void => {
          const now = performance.now();
          gaps.push(now - last);
          last = now;
          scrollTo(0, pixels * Math.min(gaps.length, FRAMES - gaps.length));
          if (gaps.length < FRAMES) requestAnimationFrame(tick);
          else resolve({ gaps: gaps.slice(1), long });
        };
        requestAnimationFrame(tick);
      }),
    each,
  );
for (const [what, each] of [
  ['3000 pixels a second', 50],
  ['through all rows in 5 s', 2500],
] as const) {
  const { gaps, long } = await scrolled(each);
  told(`Browser: frames apart, ${what}`, row(gaps));
  told(
    `Browser: tasks over 50 ms, ${what}`,
    long.length === 0 ? 'none' : `${long.length}, longest ${quantile(long, 1).toFixed(0)}`,
  );
}
await page.evaluate(() => scrollTo(0, 0));

/** From a key to the rows that it finds. */
const typed: number[] = [];
for (let k = 0; k < 12; k++) {
  await page.$eval('[aria-label="Search patches"]', (e) => (e as HTMLInputElement).select());
  typed.push(
    await page.evaluate(
      (words) =>
        new Promise<number>((resolve) => {
          const found = (): string | undefined => document.querySelector<HTMLElement>('[data-found]')?.dataset.found;
          const before = found();
          const start = performance.now();
          const look = new MutationObserver(() => {
            if (found() === before) return;
            look.disconnect();
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start)));
          });
          look.observe(document.body, { subtree: true, childList: true, attributes: true });
          // One that finds as many as the one before is left out.
          setTimeout(() => resolve(NaN), 3000);
          document.execCommand('insertText', false, words);
        }),
      k % 2 === 0 ? `${word(k)} ${k % 10}` : word(k).slice(0, 3),
    ),
  );
  await new Promise((resolve) => setTimeout(resolve, 300));
}
told('Browser: from a key in the search to its rows', row(typed.filter(Number.isFinite)));

const opened = performance.now();
await page.goto(`${application.url}/racks`, { waitUntil: 'domcontentloaded' });
await page.waitForSelector('[data-select=Rack]');
told(`Browser: the racks page, ${RACKS} racks`, `${(performance.now() - opened).toFixed(0)} ms`);
await close();
await application.close();

writeSection('library', 'Library at size', [
  `${PATCHES} patches and ${RACKS} racks (\`npm run bench -- patches\`), in headless Chromium without graphics. Milliseconds where nothing else stands.`,
  '',
  '| what | figures |',
  '| ---- | ------- |',
  ...lines,
]);
