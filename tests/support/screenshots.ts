import { openBrowser } from './browser';
import { DeskDriver } from './desk';
import { Application } from './setup';

/** One current picture of each main view. */
const application = await Application.open();
const { browser, close } = await openBrowser();

async function shoot(file: string, scheme: 'light' | 'dark', show: (desk: DeskDriver) => Promise<void>): Promise<void> {
  const page = await browser.newPage();
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
  await show(new DeskDriver(page, application.url));
  await new Promise((resolve) => setTimeout(resolve, 1500));
  await page.screenshot({ path: `docs/screenshots/${file}-${scheme}.png` });
  await page.close();
}

const stage = (id: string, chosen: string) => async (desk: DeskDriver) => {
  await desk.open(id);
  await desk.stage(chosen);
};
const shelf = async (desk: DeskDriver): Promise<void> => {
  await desk.page.goto(application.url, { waitUntil: 'networkidle0' });
};

for (const scheme of ['light', 'dark'] as const) {
  await shoot('shelf', scheme, shelf);
  await shoot('desk', scheme, stage('fog-bank-breathing', 'trim'));
}
await shoot('shut', 'light', stage('lamp-sweep-shut', 'beam'));
await shoot('cured', 'light', stage('lamp-sweep-cured', 'beam'));
await shoot('opposite', 'light', stage('two-lamps-opposite-ways', 'depth'));
await shoot('fader', 'light', stage('tide-gauge-to-three-ends', 'bright'));
await shoot('morse', 'dark', stage('morse-key-slewed', 'round'));
await shoot('night', 'light', async (desk) => {
  await desk.open('lamp-keepers-night');
  await desk.page.click('[data-end="fog.cutoff"]');
  await desk.stage('breath');
});
await close();
await application.close();
