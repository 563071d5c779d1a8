'use client';
import { memo } from 'react';
import { useStore } from 'zustand';
import type { Patch } from '@/core';
import { useSolving } from '@/ui/session/solving';
import { ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import type { Layout, Volts } from './geometry';
import { softEdges } from './softBands';

interface Props {
  readonly patch: Patch;
  readonly views: readonly FrameView[];
  readonly layout: Layout;
}

/** Where the edges of the bands come out by hand, 5 to 95%: while the draws are of the patch as it is shown. */
export const SoftEdges = memo(function SoftEdges({ patch, views, layout }: Props) {
  const spread = useStore(useSolving(), (s) => s.spread);
  if (spread?.patch !== patch) return null;
  const edges = views.map((view) => softEdges(spread.report, view.key.split(' ').at(-1) ?? ''));
  return (
    <g pointerEvents="none" data-soft-edges>
      {edges.map((pair, i) => pair?.map((edge, e) => <Edge key={`${i} ${e}`} edge={edge} index={i} layout={layout} />))}
    </g>
  );
});

function Edge({ edge: [low, high], index, layout }: { edge: Volts; index: number; layout: Layout }) {
  const top = layout.y(high);
  return (
    <rect
      x={layout.x[index]}
      y={top}
      width={layout.w[index]}
      height={Math.max(1, layout.y(low) - top)}
      fill={ink.wanted}
      fillOpacity="0.22"
    >
      <title>by hand, 5 to 95%</title>
    </rect>
  );
}
