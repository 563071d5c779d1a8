import { memo } from 'react';
import { ink } from '@/ui/theme/tokens';
import type { PictureData } from '@/wire/core';
import { sameView } from './frames';
import type { FrameView } from './frames';
import { sameScale, tracePath } from './geometry';
import type { Layout, Volts } from './geometry';

export const HATCH = 'lost-hatch';

/** The diagonal hatching of what is lost. */
export function HatchPattern() {
  return (
    <defs>
      <pattern id={HATCH} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="6" stroke={ink.error} strokeWidth="1.6" />
      </pattern>
    </defs>
  );
}

function Band({
  range,
  x,
  width,
  y,
  fill,
}: {
  range: Volts;
  x: number;
  width: number;
  y: (v: number) => number;
  fill: string;
}) {
  const top = y(range[1]);
  return <rect x={x} y={top} width={width} height={Math.max(1, y(range[0]) - top)} fill={fill} />;
}

interface BandsProps {
  readonly view: FrameView;
  readonly x: number;
  readonly width: number;
  readonly y: Layout['y'];
}

const samePlace = (a: Pick<BandsProps, 'x' | 'width' | 'y'>, b: Pick<BandsProps, 'x' | 'width' | 'y'>): boolean =>
  a.x === b.x && a.width === b.width && sameScale(a.y, b.y);

const sameBands = (a: BandsProps, b: BandsProps): boolean => samePlace(a, b) && sameView(a.view, b.view);

/** Bound, seen, trace and what is lost, at true height. */
export const Bands = memo(function Bands({ view, x, width, y }: BandsProps) {
  const [low, high] = view.bound;
  return (
    <g pointerEvents="none">
      <Band range={view.bound} x={x} width={width} y={y} fill={ink.bound} />
      {view.seen && <Band range={view.seen} x={x} width={width} y={y} fill={ink.seen} />}
      <path
        d={`M${x},${y(high)}h${width}M${x},${y(low)}h${width}`}
        stroke={ink.softInk}
        strokeWidth="0.75"
        fill="none"
      />
      {view.lost.map(({ range, why }) => (
        <g key={`${range[0]} ${why}`}>
          <title>{why}</title>
          <Band range={range} x={x} width={width} y={y} fill={`url(#${HATCH})`} />
        </g>
      ))}
      {view.picture && <Trace picture={view.picture} x={x} width={width} y={y} />}
    </g>
  );
}, sameBands);

interface TraceProps extends Pick<BandsProps, 'x' | 'width' | 'y'> {
  readonly picture: PictureData;
}

/** Apart from the bands, which move at once while the trace stays until the next one comes. */
const Trace = memo(
  function Trace({ picture, x, width, y }: TraceProps) {
    const { d, filled } = tracePath(picture, x + 1, width - 2, y);
    return (
      <path
        d={d}
        fill={filled ? ink.trace : 'none'}
        stroke={ink.trace}
        strokeWidth="1.4"
        strokeLinejoin="bevel"
        data-trace
      />
    );
  },
  (a, b) => a.picture === b.picture && samePlace(a, b),
);
