import { launchBrowser } from './browser';

declare module 'vitest' {
  interface ProvidedContext {
    readonly chromium: string;
  }
}

/** One Chromium for all tests. */
export default async function setup(project: {
  provide(key: 'chromium', value: string): void;
}): Promise<() => Promise<void>> {
  const { browser, close } = await launchBrowser();
  project.provide('chromium', browser.wsEndpoint());
  return close;
}
