'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import type { RefObject } from 'react';
import { ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import type { Layout } from './geometry';

const HEIGHT = 34;

/** The whole path, small, where it is wider than its place; what is in sight is framed, a click goes there. */
export function Miniature({
  views,
  layout,
  scroller,
  width,
}: {
  views: readonly FrameView[];
  layout: Layout;
  scroller: RefObject<HTMLElement | null>;
  width: number;
}) {
  const [left, setLeft] = useState(0);
  const [seen, setSeen] = useState(width);
  useEffect(() => {
    const element = scroller.current;
    const follow = (): void => {
      setLeft(element?.scrollLeft ?? 0);
      setSeen(element?.clientWidth ?? 0);
    };
    follow();
    element?.addEventListener('scroll', follow, { passive: true });
    return () => element?.removeEventListener('scroll', follow);
  }, [scroller]);
  const scale = width / layout.width;
  const y = scaleLinear().domain(layout.y.domain()).range([HEIGHT, 0]);
  return (
    <Box
      component="svg"
      width={width}
      height={HEIGHT}
      data-testid="miniature"
      aria-hidden="true"
      sx={{ display: 'block', cursor: 'pointer', borderBottom: `1px solid ${ink.line}` }}
      onClick={(e) => {
        const at = e.clientX - e.currentTarget.getBoundingClientRect().left;
        scroller.current?.scrollTo({ left: at / scale - seen / 2 });
      }}
    >
      {views.map((view, i) => (
        <g key={view.key}>
          {(
            [
              ['bound', view.bound],
              ['seen', view.seen],
            ] as const
          ).map(
            ([name, range]) =>
              range && (
                <rect
                  key={name}
                  x={(layout.x[i] ?? 0) * scale}
                  width={(layout.w[i] ?? 0) * scale}
                  y={y(range[1])}
                  height={Math.max(1, y(range[0]) - y(range[1]))}
                  fill={name === 'bound' ? ink.bound : ink.seen}
                />
              ),
          )}
        </g>
      ))}
      <rect
        x={left * scale + 1}
        y="1"
        width={Math.min(width, seen * scale) - 2}
        height={HEIGHT - 2}
        fill="none"
        stroke={ink.wanted}
        strokeWidth="1.5"
      />
    </Box>
  );
}
