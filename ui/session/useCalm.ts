import { useEffect, useRef, useState } from 'react';
import type { Predicted } from './usePrediction';

/** How often what lies beside the strip is drawn again while a knob turns, milliseconds. */
const CALM = 80;

/**
 * A value that comes at once, but while it only `turns` no more often than the eye reads figures: the hand then has the
 * frames to itself. The last value always comes.
 */
export function useCalm<T>(value: T, turns: (from: T, to: T) => boolean): T {
  const [shown, setShown] = useState(value);
  const since = useRef(-Infinity);
  useEffect(() => {
    const timer = setTimeout(
      () => {
        since.current = performance.now();
        setShown(value);
      },
      Math.max(0, since.current + CALM - performance.now()),
    );
    return () => clearTimeout(timer);
  }, [value]);
  return turns(shown, value) ? shown : value;
}

/** Whether nothing but settings differs: the same modules, cables and pins, and the same path shown. */
export function turns(from: Predicted, to: Predicted): boolean {
  const [a, b] = [from.graph.patch, to.graph.patch];
  return (
    from.graph.wiring.cables === to.graph.wiring.cables &&
    a.probes === b.probes &&
    a.targets === b.targets &&
    a.modules.length === b.modules.length &&
    a.modules.every((m, i) => m.id === b.modules[i]?.id && m.kind === b.modules[i]?.kind) &&
    from.strip?.frames.length === to.strip?.frames.length &&
    (from.strip?.frames.every((f, i) => f.module.id === to.strip?.frames[i]?.module.id) ?? true) &&
    from.full === to.full
  );
}
