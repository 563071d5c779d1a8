import { launchBrowser } from './browser';
import { prepareDemo } from './setup';

declare module 'vitest' {
  interface ProvidedContext {
    readonly chromium: string;
  }
}

/** One Chromium and one set of demo data for all tests. */
export default async function setup(project: {
  provide(key: 'chromium', value: string): void;
}): Promise<() => Promise<void>> {
  const { browser, close } = await launchBrowser();
  project.provide('chromium', browser.wsEndpoint());
  const forget = prepareDemo();
  return async () => {
    forget();
    await close();
  };
}
