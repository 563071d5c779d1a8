import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
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
  const completed = new Promise<void>((resolve, reject) => {
    client.on('Browser.downloadProgress', ({ state }) => {
      if (state === 'completed') resolve();
      if (state === 'canceled') reject(new Error(`${name} was cancelled`));
    });
  });
  await client.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: folder,
    browserContextId: page.browserContext().id!,
    eventsEnabled: true,
  });
  await act();
  await completed;
  const file = path.join(folder, name);
  const bytes = readFileSync(file);
  rmSync(folder, { recursive: true, force: true });
  return bytes;
}
