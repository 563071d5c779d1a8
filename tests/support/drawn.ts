import type { Page } from 'puppeteer-core';

/** Until what was done is drawn: two frames on. */
export const drawn = (page: Page): Promise<unknown> =>
  page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
