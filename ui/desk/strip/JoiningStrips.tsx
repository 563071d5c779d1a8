import { showNumber } from '@/core';
import type { Joining } from '@/core';
import { ink } from '@/ui/theme/tokens';
import { scaleLinear } from 'd3-scale';
import { Bands } from './FrameGraphic';
import type { FrameView } from './frames';
import { MINI } from './geometry';
import type { Layout } from './geometry';

export interface PlacedJoining {
  readonly joining: Joining;
  readonly views: readonly FrameView[];
  readonly row: number;
  readonly shown: number;
  /** Which frame it joins. */
  readonly frame: number;
}

/** A path that joins from beside, small, on the same span of volts; a click makes it the main strip. */
export function JoiningStrip({
  placed,
  layout,
  onOpen,
}: {
  placed: PlacedJoining;
  layout: Layout;
  onOpen: () => void;
}) {
  const { views, row, shown, frame, joining } = placed;
  const top = row * MINI.row + 24;
  const [low = -1, high = 1] = layout.y.domain();
  const y = scaleLinear()
    .domain([low, high])
    .range([top + MINI.height, top]);
  const span = MINI.width + MINI.gap;
  const target = (layout.x[frame] ?? 0) + layout.frameWidth / 2;
  const left = Math.max(4, target - shown * span - 8);
  const visible = views.slice(-shown);
  const last = views.at(-1);
  const name = `${views.map((v) => v.title).join(', ')} into ${joining.into.spec.name} of ${joining.into.socket.split('.')[0]}`;
  const range = last ? `, ${showNumber(last.bound[0], 2)} to ${showNumber(last.bound[1], 2)} volts` : '';
  const end = left + shown * span - MINI.gap;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Show the path ${name}${range}`}
      data-joining={joining.into.socket}
      cursor="pointer"
      onClick={onOpen}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        onOpen();
      }}
    >
      <title>Show this path as the main strip</title>
      {visible.map((view, i) => {
        const x = left + i * span;
        return (
          <g key={view.key}>
            <text x={x} y={top - 6} fontSize="12" fill={ink.ink}>
              {`${i === 0 && shown < views.length ? '… ' : ''}${view.title.slice(0, 15)}${view.title.length > 15 ? '…' : ''}`}
            </text>
            <rect x={x} y={top} width={MINI.width} height={MINI.height} fill="transparent" stroke={ink.line} />
            <Bands view={view} x={x} width={MINI.width} y={y} />
          </g>
        );
      })}
      <path
        d={`M${end},${top + MINI.height / 2}H${target}V${layout.top - 44}`}
        fill="none"
        stroke={ink.softInk}
        strokeDasharray="2 3"
      />
      <path d={`M${target - 4},${layout.top - 50}l4,6l4,-6`} fill="none" stroke={ink.softInk} />
      <text x={target + 6} y={top + MINI.height / 2 - 4} fontSize="11" fill={ink.softInk}>
        {`joins at ${joining.into.spec.name}${joining.into.driver.type === 'output' && joining.into.driver.delayed ? ' · loop, one sample late' : ''}`}
      </text>
    </g>
  );
}
