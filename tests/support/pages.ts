import type { BrowserContext, Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect, inject } from 'vitest';
import { openContext, VIEW, watch } from './browser';
import { DeskDriver } from './desk';
import { Application } from './setup';
import { removeNew, storedAt } from './stored';
import type { Stored } from './stored';

interface At {
  url: string;
  /** The folder of an application of the file's own; empty of a shared one. */
  data: string;
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
  /** The same of somebody who was never here: their browser has nothing of the application yet. */
  newcomer(): Promise<{ page: Page; desk: DeskDriver }>;
}

/** Lets the browser forget what a test made it keep: drafts and settings are the next test's own. */
async function forget(page: Page, origin: string): Promise<void> {
  const client = await page.createCDPSession();
  await client.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,session_storage,indexeddb' });
  await client.detach();
  // As it is told where another tab did it.
  await page.evaluate(() => void window.dispatchEvent(new StorageEvent('storage')));
}

/** A person at an application: their browser's context, and the page that stays from one test to the next. */
class Person {
  kept: Page | null = null;
  faults: string[] = [];

  private constructor(
    readonly url: string,
    readonly context: BrowserContext,
    readonly close: () => Promise<void>,
    readonly data = '',
  ) {}

  /** At an application of their own, which phones can reach. */
  static async alone(): Promise<Person> {
    const application = await Application.open({ lan: true });
    const { context, close } = await openContext();
    const leave = async (): Promise<void> => {
      await close();
      await application.close();
    };
    return new Person(application.url, context, leave, application.data);
  }

  private static first: Promise<Person> | null = null;
  /** At the application that the files of this worker share: one file after the other goes on with its page. */
  static shared(): Promise<Person> {
    const url = inject('applications')[Number(process.env.VITEST_POOL_ID) - 1] as string;
    return (this.first ??= openContext().then(({ context, close }) => new Person(url, context, close)));
  }

  async newPage(context = this.context): Promise<{ page: Page; desk: DeskDriver }> {
    const page = await context.newPage();
    watch(page, () => this.faults);
    return { page, desk: new DeskDriver(page, this.url) };
  }

  /** The page of the test before, or the first. */
  async keptPage(): Promise<{ page: Page; desk: DeskDriver }> {
    if (!this.kept || this.kept.isClosed()) {
      const first = await this.newPage();
      this.kept = first.page;
      return first;
    }
    await this.kept.bringToFront();
    await this.kept.setViewport(VIEW);
    await this.kept.mouse.move(0, 0);
    return { page: this.kept, desk: new DeskDriver(this.kept, this.url) };
  }
}

/**
 * An application, a context and a page for a file of tests, which must never show a fault. As with a person, the page
 * stays from one test to the next and goes on from where it is; what it kept, and every other page, goes.
 *
 * The application is shared by the files of a worker, and what a file put there is taken away after it.
 *
 * @param options `alone` where phones come in, or the library as a whole changes: an application of its own.
 */
export function openPages({ alone = false } = {}): { readonly at: At } {
  const at = { faults: [] as string[] } as At;
  let person: Person;
  let stored: Stored;
  let meant: RegExp[] = [];
  let allowed: RegExp[] = [];
  at.expectFault = (pattern) => void meant.push(pattern);
  at.allowFault = (pattern) => void allowed.push(pattern);
  at.newPage = () => person.newPage();
  at.ownPage = async () => Object.assign(at, await person.newPage());
  let leave: () => Promise<void> = async () => undefined;
  at.newcomer = async () => {
    const { context, close } = await openContext();
    leave = close;
    return Object.assign(at, await person.newPage(context));
  };
  beforeAll(async () => {
    person = alone ? await Person.alone() : await Person.shared();
    Object.assign(at, { url: person.url, data: person.data, context: person.context });
    if (!alone) stored = await storedAt(at.url);
  });
  afterAll(async () => {
    if (alone) return person.close();
    await removeNew(at.url, stored);
    expect(await storedAt(at.url), 'what other files of tests read too').toEqual(stored);
  });
  beforeEach(async () => {
    at.faults = person.faults = [];
    meant = [];
    allowed = [];
    Object.assign(at, await person.keptPage());
  });
  afterEach(async ({ task }) => {
    const { faults } = at;
    const pages = await at.context.pages();
    await forget(pages[0] as Page, at.url);
    // Nothing goes on from where something went wrong.
    if (task.result?.state === 'fail') person.kept = null;
    await Promise.all([...pages.filter((page) => page !== person.kept).map((page) => page.close()), leave()]);
    leave = async () => undefined;
    await fetch(`${at.url}/api/preferences`, { method: 'DELETE' });
    expect(faults.filter((f) => ![...meant, ...allowed].some((m) => m.test(f)))).toEqual([]);
    expect(meant.filter((m) => !faults.some((f) => m.test(f)))).toEqual([]);
  });
  return { at };
}
