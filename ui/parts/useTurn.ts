import { useEffect, useRef } from 'react';
import type { PointerEvent, RefObject } from 'react';
import { positionOf, valueAt } from '@/core';
import type { Travel } from '@/core';

const STEP = 0.01;
const FINE = 0.001;
/** This far up turns a knob from end to end, pixels. */
const REACH = 220;

/** As many digits as a hand can set: a ten-thousandth of the travel. */
function rounded(value: number, travel: Travel, whole: boolean): number {
  if (whole) return Math.round(value);
  if (travel.taper === 'log') return Number(value.toPrecision(5));
  const digits = Math.max(0, 4 - Math.ceil(Math.log10(travel.max - travel.min || 1)));
  return Number(value.toFixed(digits));
}

interface Turned {
  readonly travel: Travel;
  readonly whole: boolean;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** Turns a knob: by steps, to a position, by wheel, and by dragging its dial. */
export function useTurn(dial: RefObject<HTMLElement | null>, { travel, whole, value, onChange }: Turned) {
  const drag = useRef<{ y: number; position: number } | null>(null);
  const position = positionOf(travel, value);
  const turnTo = (p: number): void => {
    const next = rounded(valueAt(travel, p), travel, whole);
    if (next !== value) onChange(Math.min(travel.max, Math.max(travel.min, next)));
  };
  const turnBy = (way: number, fine: boolean): void => {
    if (whole) onChange(Math.min(travel.max, Math.max(travel.min, value + way)));
    else turnTo(position + way * (fine ? FINE : STEP));
  };
  const latest = useRef({ turnTo, turnBy });
  useEffect(() => {
    latest.current = { turnTo, turnBy };
  });
  // A passive listener, as React's own is, could not keep the page from scrolling.
  useEffect(() => {
    const element = dial.current;
    const turn = (e: WheelEvent): void => {
      e.preventDefault();
      latest.current.turnBy(e.deltaY < 0 ? 1 : -1, e.shiftKey);
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, [dial]);
  // A pointer moves more often than the screen is drawn: the last place of each frame is what counts.
  const soon = useRef<number | null>(null);
  const wanted = useRef(0);
  const turnSoon = (to: number): void => {
    wanted.current = to;
    soon.current ??= requestAnimationFrame(() => {
      soon.current = null;
      latest.current.turnTo(wanted.current);
    });
  };
  const letGo = (): void => {
    drag.current = null;
  };
  const pointer = {
    onPointerDown(e: PointerEvent<HTMLElement>): void {
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { y: e.clientY, position };
    },
    onPointerMove(e: PointerEvent): void {
      const from = drag.current;
      if (!from) return;
      const reach = e.shiftKey ? REACH * 10 : REACH;
      const to = Math.min(1, Math.max(0, from.position + (from.y - e.clientY) / reach));
      if (e.shiftKey) drag.current = { y: e.clientY, position: to };
      turnSoon(to);
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
  };
  return { turnTo, turnBy, pointer };
}
