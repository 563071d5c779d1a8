import { memo } from 'react';
import { showNumber } from '@/core';
import type { Severity } from '@/core';
import { counted } from '@/ui/parts/counted';
import { fonts, ink } from '@/ui/theme/tokens';
import { Bands } from './Bands';
import { connectorPath, FOLDED_NAME, sameLayout } from './geometry';
import { boundLines, boundText, FROM_EDGE, INSERT_ROOM } from './labels';
import type { Layout } from './geometry';
import { sameView } from './frames';
import type { FrameView } from './frames';

interface FrameProps {
  readonly view: FrameView;
  readonly index: number;
  readonly layout: Layout;
  readonly chosen: boolean;
  /** Not in the patch yet, or about to change: what is only looked at. */
  readonly proposed: boolean;
  /** The worst that is said of it. */
  readonly mark: FrameMark | null;
  readonly onChoose: (more: boolean) => void;
}

export interface FrameMark {
  readonly severity: Severity;
  readonly count: number;
}

const marks = { error: ink.error, warning: ink.warning, note: ink.softInk } as const;
const signs = { error: '×', warning: '!', note: '·' } as const;

const says = ({ title, brief, bound, arrives, seen, covered }: FrameView): string =>
  covered
    ? `${title}, ${brief}: covered`
    : `${title}, ${brief}: ${showNumber(arrives[0], 2)} to ${showNumber(arrives[1], 2)} volts arrive, guaranteed ${showNumber(bound[0], 2)} to ${showNumber(bound[1], 2)} volts` +
      (seen ? `, seen ${showNumber(seen[0], 2)} to ${showNumber(seen[1], 2)}` : '');

/** Cuts a label to what fits its frame; the whole stands in the stage panel. */
export const fitted = (text: string, width: number, perLetter: number): string => {
  const most = Math.floor(width / perLetter);
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
};

const sameFrame = (a: FrameProps, b: FrameProps): boolean =>
  a.index === b.index &&
  a.chosen === b.chosen &&
  a.proposed === b.proposed &&
  a.mark?.severity === b.mark?.severity &&
  a.mark?.count === b.mark?.count &&
  sameView(a.view, b.view) &&
  sameLayout(a.layout, b.layout);

/** One frame: a stage's name, its bands, and the extremes as numbers at the band's edges. */
export const FrameGraphic = memo(function FrameGraphic(props: FrameProps) {
  const { view, index, layout, chosen, proposed, mark, onChoose } = props;
  const [x, width] = [layout.x[index] ?? 0, layout.w[index] ?? 0];
  const folded = layout.folded[index] ?? false;
  const { top, bottom } = layout;
  const room = width + layout.gap;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      data-frame={view.id}
      data-folded={folded}
      data-proposed={proposed}
      cursor="pointer"
      onClick={(e) => onChoose(e.shiftKey)}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        onChoose(e.shiftKey);
      }}
    >
      <title>{says(view)}</title>
      {!folded && (
        <>
          <text x={x} y={top - 26} fontSize="14" fontWeight="700" fill={ink.ink}>
            {fitted(view.title, room - 22, 7.6)}
          </text>
          <text x={x} y={top - 10} fontSize="12" fill={ink.softInk}>
            {fitted(view.brief, room - 6, 6)}
          </text>
        </>
      )}
      <rect
        x={x}
        y={top}
        width={width}
        height={bottom - top}
        fill={chosen ? ink.raised : 'transparent'}
        stroke={chosen || proposed ? ink.wanted : ink.line}
        strokeWidth={chosen || proposed ? 2 : 1}
        strokeDasharray={proposed ? '5 4' : undefined}
      />
      <Voltages view={view} x={x} width={width} layout={layout} index={index} folded={folded} />
      {mark && (
        <text
          x={x + (folded ? 4 : width - 3)}
          y={folded ? top - 8 : top + 14}
          textAnchor={folded ? 'start' : 'end'}
          fontSize="13"
          fontWeight="700"
          fill={marks[mark.severity]}
          stroke={ink.paper}
          strokeWidth="3"
          paintOrder="stroke"
          data-mark={mark.severity}
        >
          <title>{`${counted(mark.count, mark.severity)} here`}</title>
          {`${signs[mark.severity]}${mark.count > 1 ? mark.count : ''}`}
        </text>
      )}
      {view.forks.length > 0 && !folded && (
        <text x={x} y={bottom + 34} fontSize="11" fill={ink.softInk}>
          <title>{`Also feeds ${view.forks.join('; ')}`}</title>
          {fitted(`Also feeds ${view.forks.join('; ')}`, room - 8, 5.6)}
        </text>
      )}
    </g>
  );
}, sameFrame);

interface VoltagesProps {
  readonly view: FrameView;
  readonly x: number;
  readonly width: number;
  readonly layout: Layout;
  readonly index: number;
  readonly folded: boolean;
}

/** What a stage comes to: bands, and where there is room the extremes as numbers. */
function Voltages({ view, x, width, layout, index, folded }: VoltagesProps) {
  const { y, top, bottom } = layout;
  const name = (
    <FoldedName view={view} x={x + FOLDED_NAME - 1} from={bottom - foldedFoot(layout, index)} to={top + 6} />
  );
  if (view.covered) return folded ? name : <Cover x={x + width / 2} layout={layout} />;
  return folded ? (
    <>
      <Bands view={bare(view)} x={x + FOLDED_NAME + 1} width={width - FOLDED_NAME - 2} y={y} />
      {name}
    </>
  ) : (
    <>
      <Bands view={view} x={x} width={width} y={y} />
      <Edges view={view} x={x} layout={layout} />
    </>
  );
}

/** What stands in place of voltages that are asked for. */
export const Cover = ({
  x,
  layout: { top, bottom },
}: {
  readonly x: number;
  readonly layout: Pick<Layout, 'top' | 'bottom'>;
}) => (
  <text
    x={x}
    y={(top + bottom) / 2 + 10}
    textAnchor="middle"
    fontSize="28"
    fill={ink.softInk}
    pointerEvents="none"
    data-covered
  >
    ?
  </text>
);

/** The extremes as numbers at the band's edges. */
function Edges({ view, x, layout: { y } }: { view: FrameView; x: number; layout: Layout }) {
  const [low, high] = view.arrives;
  const lines = boundLines(view.arrives, y);
  return (
    <g fontFamily={fonts.numbers} fontSize="12" fill={ink.ink} pointerEvents="none">
      <text x={x + FROM_EDGE} y={lines.high} data-bound="high">
        {boundText(high)}
      </text>
      <text x={x + FROM_EDGE} y={lines.low} data-bound="low">
        {boundText(low)}
      </text>
    </g>
  );
}

/** Of a folded frame only the bands are drawn: a trace in it would say nothing. */
const bare = (view: FrameView): FrameView => ({ ...view, picture: null });

interface NameProps {
  readonly view: FrameView;
  readonly x: number;
  readonly from: number;
  readonly to: number;
}

/** How far over a folded frame's foot its name begins: over the button that stands before it, if one does. */
const foldedFoot = ({ folded }: Layout, index: number): number => (folded[index - 1] === false ? INSERT_ROOM : 6);

/** The name of a folded frame, upwards beside its bands. */
function FoldedName({ view, x, from, to }: NameProps) {
  return (
    <text transform={`translate(${x},${from}) rotate(-90)`} fontSize="12" fill={ink.ink} pointerEvents="none">
      {fitted(view.title, from - to, 6.6)}
    </text>
  );
}

/** The band's way from one frame to the next: it narrows, widens, climbs, or crosses over where it is inverted. */
export function Connector({
  from,
  to,
  index,
  layout,
}: {
  from: FrameView;
  to: FrameView;
  index: number;
  layout: Layout;
}) {
  if (from.covered || to.covered) return null;
  const x = (layout.x[index] ?? 0) + (layout.w[index] ?? 0);
  const d = connectorPath(x, from.bound, to.bound, to.flips, layout.y, layout.gap);
  return <path d={d} fill={ink.bound} fillOpacity="0.6" pointerEvents="none" />;
}
