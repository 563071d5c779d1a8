import { launchBrowser } from './browser';
import { Application, prepareDemo } from './setup';

declare module 'vitest' {
  interface ProvidedContext {
    readonly chromium: string;
    /** One that the files of a worker share, for each worker. */
    readonly applications: readonly string[];
  }
}

interface Project {
  provide(key: 'chromium', value: string): void;
  provide(key: 'applications', value: readonly string[]): void;
  readonly config: { readonly maxWorkers: number };
}

/** One Chromium and one set of demo data for all tests, and an application for each worker. */
export default async function setup(project: Project): Promise<() => Promise<void>> {
  const [{ browser, close }, forget] = await Promise.all([launchBrowser(), prepareDemo()]);
  project.provide('chromium', browser.wsEndpoint());
  const applications = await Promise.all(Array.from({ length: project.config.maxWorkers }, () => Application.open()));
  project.provide(
    'applications',
    applications.map(({ url }) => url),
  );
  return async () => {
    await Promise.all(applications.map((application) => application.close()));
    forget();
    await close();
  };
}
