import { inSentence, showNumber, socketLabel, socketPlace } from '@/core';
import { memo } from 'react';
import type { Joining } from '@/core';
import { ink } from '@/ui/theme/tokens';
import { scaleLinear } from 'd3-scale';
import { Bands } from './Bands';
import { Cover, fitted } from './FrameGraphic';
import { sameView } from './frames';
import type { FrameView } from './frames';
import { sameLayout, TINY } from './geometry';
import { joiningLeft, joiningWidth } from './rows';
import type { Layout } from './geometry';

export interface PlacedJoining {
  readonly joining: Joining;
  readonly views: readonly FrameView[];
  readonly row: number;
  readonly shown: number;
  /** From where it joins to what stands next in its row, pixels. */
  readonly room: number;
  /** Which frame it joins. */
  readonly frame: number;
}

/** A letter of what is written beside, pixels. */
const LETTER = 5.8;

interface Props {
  readonly placed: PlacedJoining;
  readonly layout: Layout;
  /** The socket that the whole strip ends at: what an opened path leads back to. */
  readonly end: string | undefined;
  /** By the socket that the path joins at. */
  readonly onOpen: (socket: string) => void;
}

const same = ({ placed: a, layout: from, end: was }: Props, { placed: b, layout: to, end: is }: Props): boolean =>
  sameLayout(from, to) &&
  was === is &&
  a.row === b.row &&
  a.shown === b.shown &&
  a.room === b.room &&
  a.frame === b.frame &&
  a.joining.into.socket === b.joining.into.socket &&
  a.joining.into.driver.type === b.joining.into.driver.type &&
  a.views.length === b.views.length &&
  a.views.every((v, i) => sameView(v, b.views[i] as FrameView));

/** A path that joins from beside, small, on the same span of volts; a click makes it the main strip. */
export const JoiningStrip = memo(function JoiningStrip({ placed, layout, onOpen: openPath }: Props) {
  const onOpen = (): void => openPath(placed.joining.into.socket);
  const { views, row, shown, room, frame, joining } = placed;
  const { small } = layout;
  const tiny = small === TINY;
  const top = row * small.row + (tiny ? 18 : 24);
  const [low = -1, high = 1] = layout.y.domain();
  const y = scaleLinear()
    .domain([low, high])
    .range([top + small.height, top]);
  const target = (layout.x[frame] ?? 0) + (layout.w[frame] ?? 0) / 2;
  const left = joiningLeft(target, shown, small);
  const width = joiningWidth(target, shown, small);
  const span = width + small.gap;
  const visible = views.slice(-shown);
  const last = views.at(-1);
  const titles = views.map((v) => v.title);
  const name = `${titles.join(', ')} into ${socketPlace(joining.at, joining.into.spec.name)}`;
  const range =
    last && !last.covered ? `, ${showNumber(last.bound[0], 2)} to ${showNumber(last.bound[1], 2)} volts` : '';
  const end = left + shown * span - small.gap;
  const delayed = joining.into.driver.type === 'output' && joining.into.driver.delayed;
  const joins = `into ${inSentence(socketLabel(joining.at.kind, joining.into.spec.name))}${delayed ? ' · feedback ↺, one-sample delay' : ''}`;
  return (
    <g
      role="button"
      tabIndex={0}
      data-joining={joining.into.socket}
      cursor="pointer"
      onClick={onOpen}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        onOpen();
      }}
    >
      <title>{`Show path ${name}${range}`}</title>
      {tiny && (
        <text x={left} y={top - 4} fontSize="11" fill={ink.ink}>
          {fitted(titles.join(', '), Math.max(Math.min(90, target - left), end - left), LETTER)}
        </text>
      )}
      {visible.map((view, i) => {
        const x = left + i * span;
        return (
          <g key={view.key}>
            {!tiny && (
              <text x={x} y={top - 6} fontSize="12" fill={ink.ink}>
                {`${i === 0 && shown < views.length ? '… ' : ''}${fitted(view.title, width, 6.6)}`}
              </text>
            )}
            <rect x={x} y={top} width={width} height={small.height} fill="transparent" stroke={ink.line} />
            {view.covered ? (
              <Cover x={x + width / 2} layout={{ top, bottom: top + small.height }} />
            ) : (
              <Bands view={view} x={x} width={width} y={y} />
            )}
          </g>
        );
      })}
      <path
        d={`M${end},${top + small.height / 2}H${target}V${layout.top - 44}`}
        fill="none"
        stroke={ink.softInk}
        strokeDasharray="2 3"
      />
      <path d={`M${target - 4},${layout.top - 50}l4,6l4,-6`} fill="none" stroke={ink.softInk} />
      <text x={target + 6} y={top + small.height / 2 - (tiny ? -4 : 4)} fontSize="11" fill={ink.softInk}>
        {[joins, joining.into.spec.name].find((text) => text.length * LETTER + 5 <= room)}
      </text>
    </g>
  );
}, same);
