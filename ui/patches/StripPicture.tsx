import { scaleLinear } from 'd3-scale';
import { domainOf } from '@/ui/parts/domain';
import { ink } from '@/ui/theme/tokens';
import type { ListedPatch } from '@/wire/patches';

const SIZE = { width: 150, height: 44 } as const;

/** The bands of a patch's first strip, small. */
export function StripPicture({ strip }: { strip: NonNullable<ListedPatch['summary']>['strip'] }) {
  const y = scaleLinear()
    .domain(domainOf(strip.map((f) => f.bound)))
    .range([SIZE.height, 0]);
  const step = SIZE.width / Math.max(1, strip.length);
  const band = Math.min(34, step * 0.72);
  return (
    <svg width={SIZE.width} height={SIZE.height} aria-hidden="true">
      <line x1="0" x2={SIZE.width} y1={y(0)} y2={y(0)} stroke={ink.line} />
      {strip.map(({ bound, seen }, i) => (
        <g key={i}>
          <rect
            x={i * step}
            width={band}
            y={y(bound[1])}
            height={Math.max(1, y(bound[0]) - y(bound[1]))}
            fill={ink.bound}
          />
          <rect
            x={i * step}
            width={band}
            y={y(seen[1])}
            height={Math.max(1, y(seen[0]) - y(seen[1]))}
            fill={ink.seen}
          />
        </g>
      ))}
    </svg>
  );
}
