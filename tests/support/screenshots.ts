import { launchBrowser } from './browser';
import { DeskDriver } from './desk';
import { Application } from './setup';

/** One current picture of each main view. */
const application = await Application.open();
const { browser, close } = await launchBrowser();

type Scheme = 'light' | 'dark';

async function shoot(
  file: string,
  scheme: Scheme,
  show: (desk: DeskDriver) => Promise<void>,
  width = 1280,
  height = 800,
): Promise<void> {
  const page = await browser.newPage();
  await page.setViewport({ width, height });
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
  await page.evaluateOnNewDocument(() =>
    localStorage.setItem('fenvo.settings', '{"guide":"off","rack":"pier-rack","cared":true}'),
  );
  await show(new DeskDriver(page, application.url));
  await new Promise((resolve) => setTimeout(resolve, 1500));
  await page.screenshot({ path: `docs/screenshots/${file}-${scheme}.png` });
  await page.close();
}

const stage = (id: string, chosen: string) => async (desk: DeskDriver) => {
  await desk.open(id);
  await desk.stage(chosen);
};
const patches = async (desk: DeskDriver): Promise<void> => {
  await desk.patches();
};

const sheet = async (desk: DeskDriver): Promise<void> => {
  await desk.page.goto(`${application.url}/patches/fog-bank-breathing/sheet`, { waitUntil: 'domcontentloaded' });
  await desk.page.waitForSelector('[data-step]');
};

await shoot('patches', 'light', patches);
for (const scheme of ['light', 'dark'] as const) await shoot('editor', scheme, stage('fog-bank-breathing', 'trim'));
await shoot('map', 'light', async (desk) => {
  await desk.open('lamp-keepers-night');
  await desk.keys('g');
  await desk.page.waitForSelector('[data-map]');
});
/** What a page of the interface answers. */
const asked = async <T>(path: string, body?: object): Promise<T> => {
  const more = body && {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  };
  return (await (await fetch(`${application.url}/api${path}`, more)).json()) as T;
};
const pressed = async (desk: DeskDriver, name: string): Promise<void> => {
  const found = await desk.page.waitForSelector(
    `::-p-xpath(//*[self::button or @role="tab"][normalize-space()="${name}"])`,
  );
  await found!.click();
};

await shoot('bench', 'light', async (desk) => {
  const pulled = { kind: 'cableMissing', cable: { from: 'trim.out', to: 'join.in1' } };
  const simulated = { seed: 11, faults: [pulled], surprise: false };
  const { id } = await asked<{ id: string }>('/bench/sessions', {
    patch: 'fog-bank-breathing',
    rack: 'pier-rack',
    simulated,
  });
  await desk.page.goto(`${application.url}/bench/${id}`, { waitUntil: 'domcontentloaded' });
  await pressed(desk, 'Read all outputs');
  await desk.page.waitForSelector('[data-reading]');
  await pressed(desk, 'Find the fault');
  await desk.page.waitForSelector('[data-diagnosis]');
});
await shoot('calibration', 'dark', async (desk) => {
  await desk.page.goto(`${application.url}/bench`, { waitUntil: 'domcontentloaded' });
  await pressed(desk, 'Calibration');
  await desk.select('Which sessions', '7');
  await pressed(desk, 'Calibrate');
  await desk.page.waitForSelector('[data-rms]', { timeout: 120_000 });
});
await shoot('practice', 'light', async (desk) => {
  await desk.page.goto(`${application.url}/practice`, { waitUntil: 'domcontentloaded' });
  await (await desk.page.waitForSelector('[data-skill="gain-offset"] ::-p-xpath(.//button[.="Practise"])'))!.click();
  await pressed(desk, 'Now you');
  await desk.page.waitForSelector('[data-covered]');
});
await shoot('walkthrough', 'light', async (desk) => {
  await desk.page.goto(`${application.url}/practice/walkthroughs/gain-and-offset`, { waitUntil: 'domcontentloaded' });
  await desk.page.waitForSelector('[data-phase=resting]');
  const steps = await desk.page.waitForSelector('[role=slider][aria-label=Step], input[aria-label=Step]');
  await steps!.focus();
  for (let n = 0; n < 4; n++) await desk.page.keyboard.press('ArrowRight');
  await desk.page.waitForSelector('[data-step="5"][data-phase=resting]');
  await desk.page.waitForSelector('[data-look-current=true]');
});
await shoot('rack', 'light', async (desk) => {
  await desk.page.goto(`${application.url}/racks`, { waitUntil: 'domcontentloaded' });
  await desk.pick('In use by', 'Two lamps, opposite ways');
  await (await desk.page.waitForSelector('[data-rack-module=scalers]'))!.click();
  await desk.page.waitForSelector('[data-editing=scalers]');
});
await shoot('sheet', 'light', async (desk) => {
  await sheet(desk);
  await desk.page.evaluate(() =>
    document.querySelector('[data-step="set-swell"]')?.scrollIntoView({ block: 'center' }),
  );
});
await shoot(
  'sheet-phone',
  'dark',
  async (desk) => {
    await sheet(desk);
    await desk.button('One step at a time');
    for (let n = 1; n < 10; n++) {
      await desk.button('Next');
      await desk.page.waitForSelector(`::-p-xpath(//*[contains(text(), "step ${n + 1} of")])`);
    }
  },
  390,
  844,
);
await shoot('issue', 'light', async (desk) => {
  await desk.open('lamp-sweep-shut');
  await desk.issues();
  await desk.page.waitForSelector('[data-finding=vca-shut] ::-p-xpath(.//button[text()="Preview"])');
});
await shoot('play', 'light', async (desk) => {
  await desk.open('storm-one-fader-five-ends');
  await desk.end('water.cutoff');
  await desk.page.keyboard.press('Space');
  await desk.page.waitForSelector('[data-live=playing]');
  await desk.button('Controls');
  await desk.page.waitForSelector('[data-fader="tide.volts"]');
});
await shoot('macro', 'light', async (desk) => {
  await desk.open('storm-one-fader-five-ends');
  await desk.tab('patch');
  await desk.section('macros');
  await (await desk.page.waitForSelector('[data-macro] button'))!.click();
  await desk.page.waitForSelector('[data-macro-row]');
});
await shoot('target', 'light', async (desk) => {
  await patches(desk);
  await desk.page.locator('[data-door="From a target"]').click();
  await desk.page.waitForSelector('[data-goal=true]');
});
await shoot('gesture', 'light', async (desk) => {
  await desk.open('fog-bank-breathing');
  await desk.find('Tide gauge');
  await desk.button('Draw or record');
  await desk.page.waitForSelector('[data-gesture]');
});
await shoot('solve', 'light', async (desk) => {
  await desk.open('fog-bank-breathing');
  await desk.tab('destination');
  await desk.button('Solve for knob settings');
  await desk.page.waitForSelector('[data-answer]');
});
await shoot('phone', 'light', (desk) => desk.open('fog-bank-breathing'), 390, 844);
// Last, since it changes its patch.
await shoot('compare', 'light', async (desk) => {
  await desk.open('fog-bank-breathing');
  await desk.keepVariant('before the storm');
  await desk.stage('trim');
  await desk.type('amount', '0.7');
  await desk.type('volts', '1V');
  await desk.button('Variants');
  await desk.button('Compare');
  await desk.page.waitForSelector('[data-difference]');
});
await close();
await application.close();
