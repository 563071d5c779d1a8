import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import type { DeskDriver } from './support/desk';
import { openPages } from './support/pages';

const { at } = openPages();
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResults {
  readonly violations: readonly {
    readonly id: string;
    readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
  }[];
}

/** The checker's rules that ask for colours. */
const OF_COLOURS = ['color-contrast', 'link-in-text-block'];

/** What the checker finds against WCAG 2.2 A and AA; where a dialog is open, in that: what is behind is out of reach. */
async function violations(page: Page, rules?: readonly string[]): Promise<string[]> {
  // The title comes with the page's data, a moment after its first words.
  await page.waitForFunction(() => document.title !== '');
  // The page's own policy refuses scripts that it did not name; the checker comes in past it.
  await page.evaluate(axe);
  return page.evaluate(async (only) => {
    const { axe } = window as unknown as { axe: { run(where: object, options: object): Promise<AxeResults> } };
    const dialogs = [...document.querySelectorAll('[role=dialog]')].filter(
      (e) => e.closest('[aria-hidden=true]') === null,
    );
    const { violations } = await axe.run(
      { include: [dialogs.at(-1) ?? document.documentElement] },
      {
        runOnly: only ?? ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        // What is right need not be described, and nobody looks for the way to it.
        resultTypes: ['violations'],
        selectors: false,
      },
    );
    return violations.flatMap((v) =>
      v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary.split('\n')[1] ?? ''}`),
    );
  }, rules);
}

/** Views that are looked at one after another on one page: how one gets there, from the one before. */
type Walk = readonly (readonly [string, (desk: DeskDriver) => Promise<void>])[];

const closed = async (desk: DeskDriver): Promise<void> => {
  await desk.keys('Escape');
  await desk.page.waitForSelector('[role=dialog]', { hidden: true });
};

const walks: Readonly<Record<string, Walk>> = {
  'the patches list': [
    ['as it is', (desk) => desk.patches()],
    [
      'a goal',
      async (desk) => {
        await desk.page.locator('[data-door="From a target"]').click();
        await desk.page.waitForSelector('[data-goal=true]');
      },
    ],
  ],
  'a rack': [
    [
      'with a channel’s limits',
      async (desk) => {
        await desk.goTo('/racks');
        // In the rows, or on a phone, which draws none, in the list.
        await desk.page
          .locator('::-p-xpath(//button[normalize-space(.)="Lifts"][not(ancestor::*[@aria-label="Rows"])])')
          .click();
        await desk.page.waitForSelector('[data-editing=lifts]');
        await (await desk.page.waitForSelector('[data-section="channel limits"] button'))!.click();
        await desk.page.waitForSelector('[data-limit-of=amount]');
      },
    ],
  ],
  'a sheet': [
    [
      'as a list',
      async (desk) => {
        await desk.goTo('/patches/fog-bank-breathing/sheet');
        await desk.page.waitForSelector('[data-step]');
      },
    ],
  ],
  practice: [
    [
      'its skills',
      async (desk) => {
        await desk.goTo('/practice');
        await desk.page.waitForSelector('[data-skill]');
      },
    ],
    [
      'an exercise, and its mark',
      async (desk) => {
        await (await desk.page.waitForSelector(
          '[data-skill="which-trace"] ::-p-xpath(.//button[.="Practise"])',
        ))!.click();
        await desk.button('Now you');
        await (await desk.page.waitForSelector('[data-choice="0"]'))!.click();
        await desk.page.waitForSelector('[data-mark]');
      },
    ],
    [
      'its progress',
      async (desk) => {
        await desk.goTo('/practice');
        const tab = await desk.page.waitForSelector('::-p-xpath(//*[@role="tab"][.="Progress"])');
        await tab!.click();
        await desk.page.waitForSelector('[data-stability-chart]');
      },
    ],
    [
      'the walkthroughs',
      async (desk) => {
        await desk.goTo('/practice/walkthroughs');
        await desk.page.waitForSelector('[data-walkthrough]');
      },
    ],
    [
      'a walkthrough that asks',
      async (desk) => {
        await desk.goTo('/practice/walkthroughs/tremolo');
        await desk.page.waitForSelector('[data-phase=resting]');
        await desk.button('Next');
        await desk.page.waitForSelector('[data-step="2"][data-phase=resting]');
        await desk.button('Next');
        await desk.page.waitForSelector('[data-question=asked]');
      },
    ],
  ],
  preferences: [
    [
      'and the library',
      async (desk) => {
        await desk.goTo('/preferences');
        await desk.page.waitForSelector('[data-last-backup]');
      },
    ],
  ],
  'an empty desk': [
    [
      'with the tour',
      async (desk) => {
        await desk.patches();
        await desk.button('Empty patch');
        await desk.page.waitForFunction(() => /\/patches\//.test(location.pathname));
        await desk.keep({ guide: 'on' });
        await desk.page.waitForSelector('[data-tour]');
      },
    ],
  ],
  'the desk': [
    [
      'with a stage chosen',
      async (desk) => {
        await desk.open('lamp-sweep-shut');
        await desk.stage('beam');
        await desk.issues();
        await desk.page.waitForSelector('[data-finding]');
        await desk.tab('stage');
        await desk.section('hardware');
        await desk.issues();
      },
    ],
    [
      'as a map',
      async (desk) => {
        await desk.page.locator('[value=map]').click();
        await desk.page.waitForSelector('[data-map] [data-cell]');
      },
    ],
    [
      'keys and words',
      async (desk) => {
        await desk.keys('Shift+Slash');
        await desk.page.waitForSelector('[role=dialog] dl');
      },
    ],
    [
      'finding by typing',
      async (desk) => {
        await closed(desk);
        await desk.keys('Control+k');
        await desk.page.waitForSelector('[role=dialog] [data-choice]');
      },
    ],
    [
      'bringing a file in',
      async (desk) => {
        await closed(desk);
        await desk.command('Import');
        await desk.page.waitForSelector('[data-bring]');
      },
    ],
  ],
  'a desk that is added to': [
    [
      'drawing a gesture',
      async (desk) => {
        await desk.open('fog-bank-breathing');
        await desk.find('Tide gauge');
        await desk.button('Draw or record');
        await desk.page.waitForSelector('[data-gesture]');
      },
    ],
    [
      'choosing a stage',
      async (desk) => {
        await closed(desk);
        await desk.page.click('[aria-label="Insert a stage before Fog tone"]');
        await desk.page.waitForSelector('[data-proposed=true]');
      },
    ],
  ],
  'two states compared': [
    [
      'as a list of what differs',
      async (desk) => {
        await desk.open('two-lamps-opposite-ways');
        await desk.command('Variants');
        await desk.button('Save variant');
        await desk.page.waitForSelector('[data-variant]');
        await desk.page.click('[data-frame=depth]');
        await desk.button('Close');
        await desk.type('amount', '0.3');
        await desk.command('Variants');
        await desk.button('Compare');
        await desk.page.waitForSelector('[data-difference]');
      },
    ],
  ],
  'earlier versions': [
    [
      'as a list',
      async (desk) => {
        await desk.open('morse-key-slewed');
        await desk.command('History');
        await desk.page.waitForSelector('[data-version]');
      },
    ],
  ],
  'the scope': (['levels', 'xy', 'spectrum'] as const).map((way, i) => [
    way,
    async (desk: DeskDriver) => {
      if (i === 0) await desk.open('lamp-sweep-cured');
      await desk.page.waitForSelector('[data-way]');
      await desk.page.click(`[data-way=${way}]`);
      await desk.page.waitForSelector(`[data-${way}]`);
    },
  ]),
  'the desk on a phone': [
    [
      'as it opens',
      async (desk) => {
        await desk.page.setViewport({ width: 390, height: 844 });
        await desk.open('fog-bank-breathing');
      },
    ],
  ],
};

describe('WCAG 2.2 AA in both themes', () => {
  it.each(Object.entries(walks))('%s', async (_name, views) => {
    const { page, desk } = at;
    const still = { name: 'prefers-reduced-motion', value: 'reduce' };
    const themed = (value: 'light' | 'dark') =>
      page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value }, still]);
    for (const [view, show] of views) {
      await themed('light');
      await show(desk);
      await page.waitForSelector('html:not(.dark)');
      expect([view, await violations(page)]).toEqual([view, []]);
      // The same page in the other theme, where nothing differs but its colours: what is drawn follows the system.
      await themed('dark');
      await page.waitForSelector('html.dark');
      expect([view, await violations(page, OF_COLOURS)]).toEqual([view, []]);
    }
  });
});

describe('at 200 % of a screen of 1280 by 800', () => {
  it('every page keeps to its width, and no head takes half of it', async () => {
    const { page, desk } = at;
    await page.setViewport({ width: 640, height: 400 });
    for (const [path, there] of [
      ['/', '[data-placed]'],
      ['/patches/lamp-keepers-night', '[data-frame]'],
      ['/patches/fog-bank-breathing/sheet', '[data-step]'],
      ['/racks', 'table'],
      ['/bench', 'main'],
      ['/practice', '[data-skill]'],
      ['/practice/walkthroughs', 'main'],
      ['/preferences', 'main'],
    ] as const) {
      await desk.goTo(path);
      await page.waitForSelector(there);
      const { beyond, standing } = await page.evaluate(() => {
        const heads = [...document.querySelectorAll('*')].filter((e) =>
          ['sticky', 'fixed'].includes(getComputedStyle(e).position),
        );
        return {
          beyond: document.documentElement.scrollWidth - window.innerWidth,
          standing: Math.max(
            0,
            ...heads.map((e) => e.getBoundingClientRect()).map((r) => (r.width > 320 ? r.height : 0)),
          ),
        };
      });
      expect([path, beyond]).toEqual([path, 0]);
      expect([path, standing <= 200]).toEqual([path, true]);
    }
  });
  it('a dialog that is longer than the screen scrolls to its last button', async () => {
    const { page, desk } = at;
    await page.setViewport({ width: 640, height: 400 });
    await desk.patches();
    await page.locator('[data-door="From a target"]').click();
    await page.waitForSelector('[data-goal=true]');
    const last = await page.$$('[role=dialog] button').then((all) => all.at(-1)!);
    await last.scrollIntoView();
    const { top, bottom, hit } = await last.evaluate((e) => {
      const r = e.getBoundingClientRect();
      const on = document.elementFromPoint((r.left + r.right) / 2, (r.top + r.bottom) / 2);
      return { top: r.top, bottom: r.bottom, hit: e.contains(on) };
    });
    expect({ top: top >= 0, bottom: bottom <= 400, hit }).toEqual({ top: true, bottom: true, hit: true });
  });
});

describe('forced colours', () => {
  it.each(['light', 'dark'])('tell what is chosen from what is not: %s', async (scheme) => {
    const { page, desk } = await at.ownPage();
    const client = await page.createCDPSession();
    const features = [
      { name: 'forced-colors', value: 'active' },
      { name: 'prefers-color-scheme', value: scheme },
    ];
    await client.send('Emulation.setEmulatedMedia', { features });
    await desk.openItself('fog-bank-breathing');
    await page.locator('[data-frame=trim]').click();
    await page.waitForSelector('[role=tab][aria-selected=true]');
    const looks = await page.evaluate(() => {
      const style = (e: Element | null | undefined) => getComputedStyle(e!);
      const toggles = [...document.querySelectorAll('.MuiToggleButton-root:not(.Mui-disabled)')];
      const on = style(toggles.find((e) => e.classList.contains('Mui-selected')));
      const off = style(toggles.find((e) => !e.classList.contains('Mui-selected')));
      const trace = style(document.querySelector('path[data-trace]'));
      return {
        ground: on.backgroundColor !== off.backgroundColor && on.color !== on.backgroundColor,
        tab:
          style(document.querySelector('.MuiTabs-indicator')).backgroundColor !== style(document.body).backgroundColor,
        trace: trace.stroke === style(document.body).color,
      };
    });
    expect(looks).toEqual({ ground: true, tab: true, trace: true });
    await desk.goTo('/racks');
    const borders = await page.$$eval('header nav a', (all) =>
      all.map((a) => [a.getAttribute('aria-current'), getComputedStyle(a).borderBottomColor] as const),
    );
    const of = (current: boolean): string[] => borders.filter(([c]) => (c === 'page') === current).map(([, b]) => b);
    expect(of(true)).toHaveLength(1);
    expect(of(false)).not.toContain(of(true)[0]);
    await client.detach();
  });
});
