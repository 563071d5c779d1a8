import NoSleep from 'nosleep.js';
import { useEffect, useRef, useState } from 'react';

/** Keeps the screen on while it is asked for; ends with the page. */
export function useAwake(): readonly [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(false);
  const sleepless = useRef<NoSleep | null>(null);
  useEffect(() => () => sleepless.current?.disable(), []);
  const set = (next: boolean): void => {
    sleepless.current ??= new NoSleep();
    if (next) void sleepless.current.enable();
    else sleepless.current.disable();
    setOn(next);
  };
  return [on, set];
}
