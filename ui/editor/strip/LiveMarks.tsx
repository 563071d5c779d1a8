'use client';
import { useEffect, useRef } from 'react';
import type { Strip as StripModel } from '@/core';
import { meters } from '@/ui/session/meters';
import { ink } from '@/ui/theme/tokens';
import type { Layout } from './geometry';

interface Props {
  readonly strip: StripModel;
  readonly layout: Layout;
}

/** How many of its last places a dot leaves behind. */
const TRAIL = 24;
/** From one of them to the next, pixels; the trail stays in its frame. */
const PACE = 2;
/** How thick the bar of the last second is, pixels. */
const BAR = 5;

/** A layer of its own: what moves in every frame does not make the frames under it be painted anew. */
const above = { position: 'absolute', left: 0, top: 0, pointerEvents: 'none', willChange: 'transform' } as const;

/** What each stage puts out while it plays: the last second's range, where it is now, and where it just was. */
export function LiveMarks({ strip, layout }: Props) {
  const group = useRef<SVGGElement>(null);
  useEffect(() => {
    let frame = 0;
    const draw = (): void => {
      const marks = group.current?.children ?? [];
      for (const mark of marks) move(mark as SVGGElement, layout);
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [layout, strip]);
  return (
    <svg width={layout.width} height={layout.height} style={above} aria-hidden>
      <g ref={group} data-live-marks>
        {strip.frames.map((f, i) => {
          const socket = f.output ?? f.input?.socket;
          if (socket === undefined) return null;
          const right = (layout.x[i] ?? 0) + (layout.w[i] ?? 0) - BAR;
          return (
            <g key={socket} data-live={socket} data-x={right} data-room={Math.floor((layout.w[i] ?? 0) / PACE)}>
              <rect x={right} width={BAR} fill={ink.wanted} fillOpacity="0.35" />
              <polyline fill="none" stroke={ink.wanted} strokeOpacity="0.5" strokeWidth="1.5" />
              <circle cx={right + BAR / 2} r="4" fill={ink.wanted} />
            </g>
          );
        })}
      </g>
    </svg>
  );
}

function move(mark: SVGGElement, { y: at, top, bottom }: Layout): void {
  // Beyond the ruler it stays at the frame's edge.
  const y = (volts: number): number => Math.min(bottom, Math.max(top, at(volts)));
  const [bar, trail, dot] = mark.children as unknown as [SVGRectElement, SVGPolylineElement, SVGCircleElement];
  const metered = meters.of(mark.dataset.live ?? '');
  mark.style.visibility = metered ? 'visible' : 'hidden';
  if (!metered) return;
  const { now, low, high } = metered;
  bar.setAttribute('y', String(y(high)));
  bar.setAttribute('height', String(Math.max(1, y(low) - y(high))));
  dot.setAttribute('cy', String(y(now)));
  const x = Number(mark.dataset.x);
  const places = (trail.dataset.places ?? '')
    .split(' ')
    .filter(Boolean)
    .slice(1 - Math.max(2, Math.min(TRAIL, Number(mark.dataset.room))));
  places.push(y(now).toFixed(1));
  trail.dataset.places = places.join(' ');
  trail.setAttribute(
    'points',
    places.map((py, i) => `${(x - PACE * (places.length - 1 - i)).toFixed(1)},${py}`).join(' '),
  );
}
