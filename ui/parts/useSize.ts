import { useEffect, useRef, useState } from 'react';
import type { RefObject } from 'react';

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The inner size of an element, kept up to date. */
export function useSize<T extends HTMLElement>(first: Size): [RefObject<T | null>, Size] {
  const ref = useRef<T>(null);
  const [size, setSize] = useState(first);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (!entry) return;
      const { width, height } = entry.contentRect;
      setSize((old) => (old.width === width && old.height === height ? old : { width, height }));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}
