'use client';
import { useMemo } from 'react';
import { rangesWith } from '@/core';
import type { Patch, Strip as StripModel } from '@/core';
import type { Ghost } from '@/ui/session/ghost';
import { ink } from '@/ui/theme/tokens';
import type { Layout } from './geometry';

interface Props {
  readonly patch: Patch;
  readonly strip: StripModel;
  readonly layout: Layout;
  readonly shown: Ghost;
}

const above = { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } as const;

/** What the path would be with a fault: dashed, over what it is. */
export function GhostMarks({ patch, strip, layout, shown }: Props) {
  const ranges = useMemo(() => rangesWith(patch, shown.faults), [patch, shown]);
  const { y: at, top, bottom } = layout;
  // Beyond the ruler it stays at the frame's edge.
  const y = (volts: number): number => Math.min(bottom, Math.max(top, at(volts)));
  return (
    <svg width={layout.width} height={layout.height} style={above} aria-hidden data-ghost>
      {strip.frames.map((f, i) => {
        const socket = f.output ?? f.input?.socket ?? '';
        const range = ranges.get(socket);
        if (!range) return null;
        const [high, low] = [y(range[1]), y(range[0])];
        return (
          <rect
            key={socket}
            data-ghost-at={socket}
            x={(layout.x[i] ?? 0) + 3}
            y={high - 1}
            width={Math.max(0, (layout.w[i] ?? 0) - 6)}
            height={Math.max(2, low - high + 2)}
            fill={ink.wanted}
            fillOpacity="0.08"
            stroke={ink.wanted}
            strokeWidth="2"
            strokeDasharray="6 4"
          />
        );
      })}
    </svg>
  );
}
