import type { BrowserContext, Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect } from 'vitest';
import { openContext, watch } from './browser';
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
}

/** Lets the browser forget what a test made it keep: drafts and settings are the next test's own. */
async function forget(page: Page, origin: string): Promise<void> {
  const client = await page.createCDPSession();
  await client.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,session_storage,indexeddb' });
}

/** An application and a context for a file of tests, and a page for each, which must never show a fault. */
export function openPages(options: Parameters<typeof Application.open>[0] = {}): { readonly at: At } {
  const at = { faults: [] as string[] } as At;
  let application: Application;
  let close: () => Promise<void>;
  let meant: RegExp[] = [];
  let allowed: RegExp[] = [];
  at.expectFault = (pattern) => void meant.push(pattern);
  at.allowFault = (pattern) => void allowed.push(pattern);
  at.newPage = async () => {
    const page = await at.context.newPage();
    watch(page, at.faults);
    return { page, desk: new DeskDriver(page, at.url) };
  };
  beforeAll(async () => {
    application = await Application.open(options);
    at.url = application.url;
    // One context a file: its scripts are read once.
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
    Object.assign(at, await at.newPage());
  });
  afterEach(async () => {
    const { faults } = at;
    const pages = await at.context.pages();
    await forget(pages[0] as Page, at.url);
    await Promise.all(pages.map((page) => page.close()));
    expect(faults.filter((f) => ![...meant, ...allowed].some((m) => m.test(f)))).toEqual([]);
    expect(meant.filter((m) => !faults.some((f) => m.test(f)))).toEqual([]);
  });
  return { at };
}
