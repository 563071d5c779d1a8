import type { Page } from 'puppeteer-core';
import { parsePatch, predict, showRange } from '@/core';
import type { Patch } from '@/core';

/** A person at the desk: what they see and what they do. */
export class DeskDriver {
  constructor(
    readonly page: Page,
    private readonly url: string,
  ) {}

  async open(id: string): Promise<void> {
    await this.page.goto(`${this.url}/patches/${id}`, { waitUntil: 'networkidle0' });
    await this.page.waitForSelector('[data-frame]');
  }

  async stage(id: string): Promise<void> {
    await this.page.click(`[data-frame="${id}"]`);
    await this.page.waitForSelector(`[data-stage="${id}"]`);
  }

  reading(socket: string): Promise<string> {
    return this.page.$eval(`[data-reading="${socket}"]`, (e) => e.textContent ?? '');
  }

  async readingIs(socket: string, text: string): Promise<void> {
    await this.page
      .waitForFunction(
        (s, t) => document.querySelector(`[data-reading="${s}"]`)?.textContent === t,
        { timeout: 5000 },
        socket,
        text,
      )
      .catch(async () => {
        throw new Error(`${socket} reads ${await this.reading(socket)}, expected ${text}`);
      });
  }

  frames(): Promise<string[]> {
    return this.page.$$eval('[data-frame]', (all) => all.map((e) => e.getAttribute('data-frame') ?? ''));
  }

  /** The numbers at a frame's edges. */
  edges(id: string): Promise<string[]> {
    return this.page.$$eval(`[data-frame="${id}"] [data-bound]`, (all) => all.map((e) => e.textContent ?? ''));
  }

  knob(label: string) {
    return `[data-knob="${label}"] [role=slider]`;
  }

  async type(label: string, text: string): Promise<void> {
    await this.page.focus(this.knob(label));
    await this.page.keyboard.press('Enter');
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  knobText(label: string): Promise<string> {
    return this.page.$eval(this.knob(label), (e) => e.getAttribute('aria-valuetext') ?? '');
  }

  async dragKnob(label: string, up: number): Promise<void> {
    const box = await (await this.page.$(this.knob(label)))!.boundingBox();
    const [x, y] = [box!.x + box!.width / 2, box!.y + box!.height / 2];
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    for (let i = 1; i <= 8; i++) await this.page.mouse.move(x, y - (up * i) / 8);
    await this.page.mouse.up();
  }

  async button(text: string): Promise<void> {
    const button = await this.page.waitForSelector(`::-p-xpath(//button[contains(., "${text}")])`);
    await button!.click();
  }

  async saved(): Promise<void> {
    await this.page.waitForSelector('[data-save="saved"]', { timeout: 10_000 });
  }

  /** The patch as the server has it. */
  async stored(id: string): Promise<Patch> {
    return (await fetchPatch(this.url, id)).patch;
  }
}

export async function fetchPatch(url: string, id: string): Promise<{ revision: number; patch: Patch }> {
  const answer = (await (await fetch(`${url}/api/patches/${id}`)).json()) as { revision: number; patch: unknown };
  const result = parsePatch(answer.patch);
  if (!result.ok) throw new Error(`the stored patch cannot be read: ${result.errors[0]?.path}`);
  return { revision: answer.revision, patch: result.value };
}

/** What the core itself says of a destination, as the screen prints it. */
export function readingOf(patch: Patch, socket: string): string {
  const r = predict(patch, { simulation: false }).readings.find((x) => x.at === socket)!;
  return showRange(r.low, r.high, r.unit);
}
