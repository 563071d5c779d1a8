import type { Browser, Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect, inject } from 'vitest';
import { openBrowser, watch } from './browser';
import { DeskDriver } from './desk';

/** A browser for a file of tests, and a new page for each, which must never show a fault. */
export function openPages() {
  const url = inject('url');
  let opened: Awaited<ReturnType<typeof openBrowser>>;
  const state = { faults: [] as string[] } as { faults: string[]; page: Page; desk: DeskDriver; browser: Browser };
  beforeAll(async () => {
    opened = await openBrowser();
    state.browser = opened.browser;
  });
  afterAll(() => opened.close());
  beforeEach(async () => {
    state.faults = [];
    state.page = await opened.browser.newPage();
    watch(state.page, state.faults);
    state.desk = new DeskDriver(state.page, url);
  });
  afterEach(async () => {
    expect(state.faults).toEqual([]);
    await state.page.close();
  });
  return { url, at: state };
}
