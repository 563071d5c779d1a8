import type { CDPSession, KeyInput, Page } from 'puppeteer-core';

interface TreeNode {
  readonly ignored: boolean;
  readonly role?: { readonly value: string };
  readonly name?: { readonly value?: string };
  readonly value?: { readonly value?: string | number };
  readonly description?: { readonly value?: string };
  readonly properties?: readonly { readonly name: string; readonly value: { readonly value?: unknown } }[];
}

/** What is said of one element: its role, its name, what it holds, and its states. */
export interface Said {
  readonly role: string;
  readonly name: string;
  readonly value: string;
  readonly description: string;
  readonly states: Readonly<Record<string, unknown>>;
}

const saidOf = ({ role, name, value, description, properties = [] }: TreeNode): Said => ({
  role: role?.value ?? '',
  name: name?.value ?? '',
  value: String(value?.value ?? ''),
  description: description?.value ?? '',
  states: Object.fromEntries(properties.map((p) => [p.name, p.value.value])),
});

/** Presses of Tab until something is called out of reach. */
const FAR = 150;

/**
 * A person who hears the page and has no pointer: goes on by keys alone, and knows of the page only what the
 * accessibility tree tells: no text of the document, no click.
 */
export class Reader {
  private constructor(
    private readonly page: Page,
    private readonly client: CDPSession,
  ) {}

  static async of(page: Page): Promise<Reader> {
    const client = await page.createCDPSession();
    await client.send('Accessibility.enable');
    return new Reader(page, client);
  }

  /** What has the focus, as it is read out. */
  focused(): Promise<Said> {
    return this.spoken('document.activeElement');
  }

  private async spoken(expression: string): Promise<Said> {
    const { result } = await this.client.send('Runtime.evaluate', { expression });
    const { nodes } = await this.client.send('Accessibility.getPartialAXTree', {
      objectId: result.objectId ?? '',
      fetchRelatives: false,
    });
    return saidOf(nodes[0] as TreeNode);
  }

  /** The option that is active: the one with the focus, or the one that a field with the focus points to. */
  private active(): Promise<Said> {
    return this.spoken(`(() => {
      const field = document.activeElement;
      return document.getElementById(field?.getAttribute('aria-activedescendant') ?? '') ?? field;
    })()`);
  }

  /** All that is read out of a page, in its order. */
  async heard(): Promise<Said[]> {
    const { nodes } = await this.client.send('Accessibility.getFullAXTree');
    return (nodes as readonly TreeNode[]).filter((n) => !n.ignored).map(saidOf);
  }

  /** Waits until something is read out that the list answers to; answers what is said of it. */
  private async waitsFor(is: (said: Said) => boolean, what: string, alike: (said: Said) => boolean): Promise<Said> {
    let all: Said[] = [];
    for (const end = Date.now() + 20_000; Date.now() < end;) {
      all = await this.heard();
      const found = all.find(is);
      if (found) return found;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error(`no ${what} is read out, only ${JSON.stringify(all.filter(alike).map((s) => s.name))}`);
  }

  /** Waits until something of that role and name is read out. */
  hears(role: string, name: RegExp): Promise<Said> {
    const ofRole = (s: Said): boolean => s.role === role;
    return this.waitsFor((s) => ofRole(s) && name.test(s.name), `${role} called ${name}`, ofRole);
  }

  /** Waits until words are read out, whatever they belong to. */
  hearsText(words: RegExp): Promise<Said> {
    return this.waitsFor(
      (s) => words.test(s.name),
      `“${words}”`,
      (s) => s.role === 'StaticText',
    );
  }

  /**
   * Goes on by Tab until something of that role and name has the focus.
   *
   * @returns how many presses it took.
   */
  async reach(role: string, name: RegExp): Promise<number> {
    await this.hears(role, name);
    const passed: string[] = [];
    for (let presses = 0; presses <= FAR; presses++) {
      const said = await this.focused();
      if (said.role === role && name.test(said.name)) return presses;
      passed.push(`${said.role} ${said.name}`);
      await this.page.keyboard.press('Tab');
    }
    throw new Error(`no Tab leads to ${role} ${name}: ${JSON.stringify(passed.slice(0, 60))}`);
  }

  async press(...keys: KeyInput[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key);
  }

  /** Reaches a button, a link or a tab, and presses it. */
  async use(role: 'button' | 'link' | 'tab', name: RegExp): Promise<void> {
    await this.reach(role, name);
    await this.press('Enter');
  }

  /** Reaches a field and types in place of what it holds. */
  async type(name: RegExp, text: string, role = 'textbox'): Promise<void> {
    await this.reach(role, name);
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('a');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.type(text);
  }

  /** Opens a list and takes the option that is called so. */
  async choose(list: RegExp, option: RegExp): Promise<void> {
    await this.reach('combobox', list);
    await this.press('Enter');
    await this.pick(option);
    await this.hears('combobox', list);
  }

  /** Goes down a list that is open until an option is the active one, and takes it. */
  async pick(option: RegExp): Promise<void> {
    await this.hears('option', option);
    for (let i = 0; i < FAR; i++) {
      if (option.test((await this.active()).name)) return this.press('Enter');
      await this.press('ArrowDown');
    }
    throw new Error(`no arrow leads to the option ${option}`);
  }
}
