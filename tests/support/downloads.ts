import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';

/**
 * What a page saves when something is done on it.
 *
 * @param name of the file that shall come.
 */
export async function downloaded(page: Page, name: string, act: () => Promise<void>): Promise<Buffer> {
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-download-'));
  const client = await page.createCDPSession();
  await client.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: folder,
    browserContextId: page.browserContext().id!,
  });
  await act();
  const file = path.join(folder, name);
  for (let i = 0; i < 100 && !existsSync(file); i++) await new Promise((resolve) => setTimeout(resolve, 50));
  // It is there under its name before all of it is.
  await new Promise((resolve) => setTimeout(resolve, 200));
  const bytes = readFileSync(file);
  rmSync(folder, { recursive: true, force: true });
  return bytes;
}
