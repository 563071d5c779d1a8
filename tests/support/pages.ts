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
  /** One more page of the same person, watched like the first. */
  newPage(): Promise<{ page: Page; desk: DeskDriver }>;
}

/** An application for a file of tests, and for each test a context and a page, which must never show a fault. */
export function openPages(): { readonly at: At } {
  const at = { faults: [] as string[] } as At;
  let application: Application;
  let close: () => Promise<void>;
  let meant: RegExp[] = [];
  at.expectFault = (pattern) => void meant.push(pattern);
  at.newPage = async () => {
    const page = await at.context.newPage();
    watch(page, at.faults);
    return { page, desk: new DeskDriver(page, at.url) };
  };
  beforeAll(async () => {
    application = await Application.open();
    at.url = application.url;
  });
  afterAll(() => application.close());
  beforeEach(async () => {
    at.faults = [];
    meant = [];
    ({ context: at.context, close } = await openContext());
    Object.assign(at, await at.newPage());
  });
  afterEach(async () => {
    const { faults } = at;
    await close();
    expect(faults.filter((f) => !meant.some((m) => m.test(f)))).toEqual([]);
    expect(meant.filter((m) => !faults.some((f) => m.test(f)))).toEqual([]);
  });
  return { at };
}
