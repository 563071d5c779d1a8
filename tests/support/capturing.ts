import type { Page } from 'puppeteer-core';
import { writeFileSync } from 'node:fs';
import { voltsToWav } from '../../core/formats/wavFile';
import { launchBrowser } from './browser';

const RATE = 48_000;
const SECONDS = 12;

/** A browser whose sound interface plays a file, over and over. */
export class Capturing {
  private constructor(
    readonly page: Page,
    private readonly url: string,
    readonly close: () => Promise<void>,
  ) {}

  /** @param of what comes in, of full scale, over time. */
  static async open(url: string, file: string, of: (seconds: number) => number): Promise<Capturing> {
    writeFileSync(
      file,
      voltsToWav(
        Float32Array.from({ length: RATE * SECONDS }, (_, k) => of(k / RATE)),
        RATE,
      ),
    );
    const { browser, close } = await launchBrowser([
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}`,
    ]);
    const page = await browser.newPage();
    return new Capturing(page, url, close);
  }

  /** Presses a button, or a tab. */
  async press(name: string): Promise<void> {
    const found = await this.page.waitForSelector(
      `::-p-xpath(//*[self::button or @role="tab"][normalize-space()="${name}"])`,
    );
    await found!.click();
  }

  async listenTo(session: string): Promise<void> {
    await this.page.goto(`${this.url}/bench/${session}`);
    await this.press('Live input');
    await this.press('Open input');
    await this.page.waitForFunction(() => (document.querySelector('[data-level]')?.textContent ?? '') !== '');
    // What is looked at for the scale must have been heard.
    await new Promise((resolve) => setTimeout(resolve, 2500));
  }

  /** Says that what comes in is the known voltage. */
  async scaled(): Promise<string | null> {
    await this.press('Set scale');
    const found = await this.page.waitForSelector('[data-live=dc], [data-ac-coupled]');
    return found!.evaluate((e) => (e.hasAttribute('data-ac-coupled') ? 'blocked' : e.getAttribute('data-live')));
  }

  level(): Promise<string> {
    return this.page.$eval('[data-level]', (e) => e.textContent);
  }
}
