import type { BrowserContext, Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect } from 'vitest';
import { openContext, VIEW, watch } from './browser';
import { DeskDriver } from './desk';
import { Application } from './setup';

interface At {
  url: string;
  context: BrowserContext;
  page: Page;
  desk: DeskDriver;
  /** What no page may show. */
  faults: string[];
  /** Says that such a fault must have been shown, and is meant. */
  expectFault(pattern: RegExp): void;
  /** Says that such a fault may be shown. */
  allowFault(pattern: RegExp): void;
  /** One more page of the same person, watched like the first. */
  newPage(): Promise<{ page: Page; desk: DeskDriver }>;
  /** For a test that reads the application anew, or changes its page for good: a page that no other test has. */
  ownPage(): Promise<{ page: Page; desk: DeskDriver }>;
}

/** Lets the browser forget what a test made it keep: drafts and settings are the next test's own. */
async function forget(page: Page, origin: string): Promise<void> {
  const client = await page.createCDPSession();
  await client.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,session_storage,indexeddb' });
  await client.detach();
  // As it is told where another tab did it.
  await page.evaluate(() => void window.dispatchEvent(new StorageEvent('storage')));
}

/**
 * An application, a context and a page for a file of tests, which must never show a fault. As with a person, the page
 * stays from one test to the next and goes on from where it is; what it kept, and every other page, goes.
 */
export function openPages(options: Parameters<typeof Application.open>[0] = {}): { readonly at: At } {
  const at = { faults: [] as string[] } as At;
  let application: Application;
  let close: () => Promise<void>;
  let meant: RegExp[] = [];
  let allowed: RegExp[] = [];
  let kept: Page | null = null;
  at.expectFault = (pattern) => void meant.push(pattern);
  at.allowFault = (pattern) => void allowed.push(pattern);
  at.newPage = async () => {
    const page = await at.context.newPage();
    watch(page, () => at.faults);
    return { page, desk: new DeskDriver(page, at.url) };
  };
  at.ownPage = async () => {
    Object.assign(at, await at.newPage());
    return at;
  };
  beforeAll(async () => {
    application = await Application.open(options);
    at.url = application.url;
    ({ context: at.context, close } = await openContext());
  });
  afterAll(async () => {
    await close();
    await application.close();
  });
  beforeEach(async () => {
    at.faults = [];
    meant = [];
    allowed = [];
    if (kept) {
      Object.assign(at, { page: kept, desk: new DeskDriver(kept, at.url) });
      await kept.bringToFront();
      await kept.setViewport(VIEW);
      await kept.mouse.move(0, 0);
    } else {
      Object.assign(at, await at.newPage());
      kept = at.page;
    }
  });
  afterEach(async ({ task }) => {
    const { faults } = at;
    const pages = await at.context.pages();
    await forget(pages[0] as Page, at.url);
    // Nothing goes on from where something went wrong.
    if (task.result?.state === 'fail') kept = null;
    await Promise.all(pages.filter((page) => page !== kept).map((page) => page.close()));
    expect(faults.filter((f) => ![...meant, ...allowed].some((m) => m.test(f)))).toEqual([]);
    expect(meant.filter((m) => !faults.some((f) => m.test(f)))).toEqual([]);
  });
  return { at };
}
