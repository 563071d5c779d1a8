import type { ElementHandle, KeyInput, Page } from 'puppeteer-core';
import { parsePatch, predict, printPatch, showRange } from '@/core';
import type { Patch } from '@/core';

/** A person in the editor: what they see and what they do. */
export class DeskDriver {
  constructor(
    readonly page: Page,
    private readonly url: string,
  ) {}

  /** Goes to a page of the application: within it where one is there already, as by a link, else by its address. */
  async goTo(path: string): Promise<void> {
    const inside = await this.page.evaluate((to) => {
      const { router } = (window as { next?: { router?: { push(to: string): void } } }).next ?? {};
      const main = document.querySelector('main');
      // Before the page is hydrated a link is an address like any other.
      const hydrated = main !== null && Object.keys(main).some((key) => key.startsWith('__reactFiber'));
      if (!router || !hydrated || location.pathname === to) return false;
      main.setAttribute('data-left', 'true');
      router.push(to);
      return true;
    }, path);
    if (inside) await this.page.waitForSelector('main:not([data-left])');
    else await this.page.goto(this.url + path, { waitUntil: 'domcontentloaded' });
  }

  /** Opens a patch of the list itself. */
  async openItself(id: string): Promise<void> {
    await this.goTo(`/patches/${id}`);
    await this.page.waitForSelector('[data-frame]');
    await this.simulated();
  }

  /** Opens a copy of its own, so that what is changed there is nobody else's. */
  async open(id: string): Promise<void> {
    await this.openItself(await storePatch(this.url, printPatch(await this.stored(id))));
  }

  /** Until the whole patch was simulated once. */
  async simulated(): Promise<void> {
    await this.page.waitForSelector('main[data-simulated=true]', { timeout: 30_000 });
  }

  async patches(): Promise<void> {
    await this.goTo('/');
    // Rows come with the page; they answer once it runs.
    await this.page.waitForSelector('[data-placed]');
  }

  /** The patches list, with the patch of that name in it. */
  async row(name: string): Promise<void> {
    await this.fill('[aria-label="Search patches"]', name);
    // Once it answers to the last letter: what stands there before moves on under the pointer.
    await this.page.waitForSelector(`[aria-label=Patches][aria-busy=false] [aria-label="Select ${name}"]`);
  }

  /** A choice from a list that opens. */
  async select(label: string, value: string): Promise<void> {
    await this.page.locator(`[role=combobox][aria-label="${label}"]`).click();
    await this.pickListed(value);
  }

  /** A patch of all, by its name. */
  async pick(label: string, name: string): Promise<void> {
    await this.fill(`[data-picker="${label}"]`, name);
    await this.page.locator(`::-p-xpath(//li[@role="option"][text()="${name}"])`).click();
    await this.page.waitForSelector('[role=option]', { hidden: true });
  }

  private async pickListed(value: string): Promise<void> {
    await this.page.locator(`[role=listbox] [data-value="${value}"]`).click();
    await this.page.waitForSelector('[role=listbox]', { hidden: true });
  }

  /** A choice from a menu that a button opens. */
  async menu(button: string, item: string): Promise<void> {
    await this.button(button);
    await (await this.page.waitForSelector(`::-p-xpath(//*[@role="menuitem"][contains(., "${item}")])`))!.click();
    await this.page.waitForSelector('[role=menu]', { hidden: true });
  }

  /** Opens a tab of the inspector. */
  async tab(name: 'stage' | 'destination' | 'patch'): Promise<void> {
    await this.page.locator(`#tab-${name}`).click();
    await this.page.waitForSelector(`[data-panel="${name}"]`);
  }

  /** Opens the list of issues. */
  async issues(): Promise<void> {
    if (!(await this.page.$('[data-panel=issues]'))) await this.page.locator('[aria-label^="Issues:"]').click();
    await this.page.waitForSelector('[data-panel=issues]');
  }

  /** Opens a part of a panel, where it is not open yet. */
  async section(id: string): Promise<void> {
    const head = `[data-section="${id}"] button[aria-expanded]`;
    await this.page.waitForSelector(head);
    // Once it stands still: what opens above it moves it on, and the press would meet something else.
    if ((await this.page.$eval(head, (e) => e.getAttribute('aria-expanded'))) === 'false')
      await this.page.locator(head).click();
    await this.page.waitForSelector(`[data-section="${id}"] button[aria-expanded=true]`);
  }

  async stage(id: string): Promise<void> {
    await this.page.locator(`[data-frame="${id}"]`).click();
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

  /** By the parameter's own name, whatever people call it. */
  knob(param: string) {
    return `[data-knob="${param}"] [role=slider]`;
  }

  async type(param: string, text: string): Promise<void> {
    await this.page.waitForSelector(this.knob(param));
    await this.page.focus(this.knob(param));
    await this.page.keyboard.press('Enter');
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  knobText(param: string): Promise<string> {
    return this.page.$eval(this.knob(param), (e) => e.getAttribute('aria-valuetext') ?? '');
  }

  async dragKnob(param: string, up: number): Promise<void> {
    const box = await (await this.page.$(this.knob(param)))!.boundingBox();
    const [x, y] = [box!.x + box!.width / 2, box!.y + box!.height / 2];
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    for (let i = 1; i <= 8; i++) await this.page.mouse.move(x, y - (up * i) / 8);
    await this.page.mouse.up();
  }

  async button(text: string): Promise<void> {
    // One that stands still: what moves under the pointer is not what was meant.
    await this.page.locator(`::-p-xpath(//button[contains(., "${text}") or contains(@aria-label, "${text}")])`).click();
  }

  /** A command of the editor's header: its button, or on a phone its entry in the menu that holds them all. */
  async command(text: string): Promise<void> {
    const inMenu = await this.page.$eval('header [aria-label=More]', (e) => e.checkVisibility());
    await (inMenu ? this.menu('More', text) : this.button(text));
  }

  /** An editor with nothing on it. */
  async fresh(): Promise<void> {
    await this.keep({ guide: 'off' });
    await this.goTo(`/patches/${await storePatch(this.url, { format: 'fenvo.patch', version: 1, name: 'New patch' })}`);
    await this.saved();
  }

  /** The same by way of the list. */
  async freshFromPatches(): Promise<void> {
    await this.keep({ guide: 'off' });
    await this.patches();
    await this.button('Empty patch');
    await this.page.waitForFunction(() => /\/patches\//.test(location.pathname));
    await this.saved();
  }

  /** What this browser keeps of choices that were made before. */
  async keep(settings: object): Promise<void> {
    // A page of the same origin, which reads no scripts.
    if (!this.page.url().startsWith(this.url)) await this.page.goto(`${this.url}/api/health`);
    await this.page.evaluate((text) => {
      localStorage.setItem('fenvo.settings', text);
      // As it is told where another tab did it.
      window.dispatchEvent(new StorageEvent('storage'));
    }, JSON.stringify(settings));
  }

  /** The id of the patch in the editor. */
  id(): string {
    return new URL(this.page.url()).pathname.split('/').at(-1) ?? '';
  }

  async choose(key: string): Promise<void> {
    await (await this.page.waitForSelector(`[data-choice="${key}"]`))!.click();
    await this.page.waitForSelector('[data-chooser]', { hidden: true });
  }

  async addEnd(key: string): Promise<void> {
    await this.button('Add destination');
    await this.choose(key);
  }

  /** What drives the first frame, where nothing does yet. */
  async feed(key: string): Promise<void> {
    await this.button('Choose a source for');
    await this.choose(key);
  }

  async insert(before: string, kind: string): Promise<void> {
    await this.page.click(`[aria-label="Insert a stage before ${before}"]`);
    await this.choose(kind);
  }

  async add(kind: string): Promise<void> {
    await this.button('Add module');
    await this.choose(kind);
  }

  async end(socket: string): Promise<void> {
    await this.page.locator(`[data-end="${socket}"]`).click();
    await this.page.waitForSelector(`[data-end="${socket}"][aria-pressed=true]`);
  }

  /** Patches an output to an input of the selected stage. */
  async plug(input: string, from: string): Promise<void> {
    await (await this.page.waitForSelector(`[data-input$=".${input}"] [role=combobox]`))!.click();
    await this.pickListed(from);
  }

  /** A setting of the selected stage that is no knob. */
  async set(param: string, value: string): Promise<void> {
    if (!(await this.page.$(`[data-stage] [data-setting="${param}"]`))) await this.section('hardware');
    const row = `[data-stage] [data-setting="${param}"]`;
    await this.page.waitForSelector(row);
    const list = await this.page.$(`${row} [role=combobox]`);
    if (list) {
      await list.click();
      return this.pickListed(value);
    }
    await this.fill(`${row} input`, value);
    await this.page.keyboard.press('Enter');
  }

  /** Types into a field in place of what it holds: by focus, for what is above it may still be growing. */
  async fill(field: string | ElementHandle, text: string): Promise<void> {
    const element = typeof field === 'string' ? await this.page.waitForSelector(field) : field;
    await element!.evaluate((e) => {
      (e as HTMLInputElement).focus();
      (e as HTMLInputElement).select();
    });
    await this.page.keyboard.type(text);
  }

  /** What a field shows, and why it was refused: the text that describes the field, as it is read out. */
  field(selector: string): Promise<{ text: string; fault: string }> {
    return this.page.$eval(selector, (e) => ({
      text: (e as HTMLInputElement).value,
      fault: document.getElementById(e.getAttribute('aria-describedby') ?? '')?.textContent ?? '',
    }));
  }

  /** Waits until the patch in the editor is stored, and reads it back. */
  async kept(): Promise<Patch> {
    await this.saved();
    return this.stored();
  }

  /** Presses keys one after the other: `i`, `Alt+ArrowRight`. */
  async keys(...all: string[]): Promise<void> {
    for (const keys of all) {
      const parts = keys.split('+');
      const last = parts.pop() as KeyInput;
      for (const held of parts) await this.page.keyboard.down(held as KeyInput);
      await this.page.keyboard.press(last);
      for (const held of parts.reverse()) await this.page.keyboard.up(held as KeyInput);
    }
  }

  /** Goes to what is found by these words. */
  async find(words: string): Promise<void> {
    await this.keys('Control+k');
    await this.page.waitForSelector('[role=dialog] [data-chooser] input:focus');
    await this.page.keyboard.type(words);
    await this.keys('Enter');
    await this.page.waitForSelector('[role=dialog]', { hidden: true });
  }

  /** Keeps the patch as it is now as a variant. */
  async keepVariant(name: string): Promise<void> {
    await this.button('Variants');
    await this.page.waitForSelector('[aria-label="Name of the variant"]');
    await this.page.type('[aria-label="Name of the variant"]', name);
    await this.keys('Enter');
    await this.page.waitForSelector(`[data-variant="${name}"]`);
    await this.button('Close');
  }

  async saved(): Promise<void> {
    await this.page.waitForSelector('[data-save="saved"]', { timeout: 10_000 });
  }

  /** The patch as the server has it. */
  async stored(id: string = this.id()): Promise<Patch> {
    return (await fetchPatch(this.url, id)).patch;
  }
}

/** Stores a new patch; answers its id. */
export async function storePatch(url: string, patch: object): Promise<string> {
  const answer = await fetch(`${url}/api/patches`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ patch }),
  });
  return ((await answer.json()) as { id: string }).id;
}

export async function fetchPatch(url: string, id: string): Promise<{ revision: number; patch: Patch }> {
  const answer = (await (await fetch(`${url}/api/patches/${id}`)).json()) as { revision: number; patch: unknown };
  const result = parsePatch(answer.patch);
  if (!result.ok) throw new Error(`the stored patch could not be read: ${result.errors[0]?.path}`);
  return { revision: answer.revision, patch: result.value };
}

/** What the core itself says of a destination, as the screen prints it. */
export function readingOf(patch: Patch, socket: string): string {
  const r = predict(patch, { cures: false }).readings.find((x) => x.at === socket)!;
  return showRange(r.arrivesLow, r.arrivesHigh, r.unit);
}
