import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import puppeteer from 'puppeteer-core';
import type { Browser, BrowserContext, Page } from 'puppeteer-core';
import { inject } from 'vitest';
import { findChromium } from '../../scripts/chromium.mjs';

const [width = 1280, height = 800] = (process.env.FENVO_VIEW ?? '')
  .split('x')
  .map(Number)
  .filter((n) => n > 0);
/** How large pages are looked at: 1280 by 800, or as FENVO_VIEW says, `390x844`. */
export const VIEW = { width, height };

/** Debian's Chromium, with a profile of its own. @param more what it is told beside the usual. */
export async function launchBrowser(
  more: readonly string[] = [],
): Promise<{ browser: Browser; close(): Promise<void> }> {
  const profile = mkdtempSync(path.join(tmpdir(), 'fenvo-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: findChromium() ?? '/usr/bin/chromium',
    headless: true,
    userDataDir: profile,
    defaultViewport: VIEW,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-dev-shm-usage',
      // No fades to wait for: what moves by itself is tried where a test asks for it.
      '--force-prefers-reduced-motion',
      ...more,
    ],
  });
  return {
    browser,
    async close() {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** A context of its own in the one Chromium of all tests: nothing that another test stored is in it. */
export async function openContext(): Promise<{ context: BrowserContext; close(): Promise<void> }> {
  const browser = await puppeteer.connect({ browserWSEndpoint: inject('chromium'), defaultViewport: VIEW });
  const context = await browser.createBrowserContext();
  return {
    context,
    async close() {
      await context.close();
      await browser.disconnect();
    },
  };
}

/** Where it was said, for what names no place itself. */
const placed = (url: string | undefined): string =>
  url === undefined || url === '' ? '' : ` (${new URL(url, 'http://page').pathname})`;

/** Gathers what a page must never show: console errors and warnings, failed scripts, requests that leave the machine. */
export function watch(page: Page, faultsNow: () => string[]): void {
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warn')
      faultsNow().push(`console ${message.type()}: ${message.text()}${placed(message.location().url)}`);
  });
  page.on('pageerror', (error) =>
    faultsNow().push(`page error: ${error instanceof Error ? error.message : String(error)}`),
  );
  page.on('request', (request) => {
    const url = new URL(request.url());
    if (/^(https?|wss?):$/.test(url.protocol) && url.hostname !== '127.0.0.1')
      faultsNow().push(`request to ${url.href}`);
  });
}
