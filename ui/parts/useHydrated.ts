import { useSyncExternalStore } from 'react';

const never = (): (() => void) => () => undefined;

/** Whether the page runs: until then it is as the server wrote it, which knows neither place nor time of its reader. */
export const useHydrated = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
