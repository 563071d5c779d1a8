'use client';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import type { Strip as StripModel } from '@/core';
import { useSize } from '@/ui/parts/useSize';
import { pointAt } from '@/ui/session/moment';
import type { Predicted } from '@/ui/session/usePrediction';
import { Connector, FrameGraphic, HatchPattern } from './FrameGraphic';
import type { FrameMark } from './FrameGraphic';
import { endView, frameViews, joiningViews, Steady } from './frames';
import type { EndView, FrameView } from './frames';
import { domainOf } from '@/ui/parts/domain';
import { fits, foldsOf, layoutOf, stackRows, TINY } from './geometry';
import type { Space, Volts } from './geometry';
import { JoiningStrip } from './JoiningStrips';
import type { PlacedJoining } from './JoiningStrips';
import { Miniature } from './Miniature';
import { MomentMarks, momentUnder } from './MomentMarks';
import { UnitRuler, VoltsRuler, Wanted } from './Rulers';

const Handles = dynamic(() => import('./Handles').then((m) => m.Handles), { ssr: false });

export interface StripActions {
  readonly onChoose: (id: string, more: boolean) => void;
  readonly onOpenJoining: (socket: string) => void;
  readonly onInsert: (input: string) => void;
  /** Chooses what drives the first frame, where nothing does. */
  readonly onFeed: (input: string) => void;
  readonly onMove: (id: string, before: string) => void;
}

interface Props extends Partial<StripActions> {
  readonly predicted: Predicted;
  readonly strip: StripModel;
  readonly chosen?: readonly string[];
  /** Modules that are only proposed. */
  readonly proposed?: ReadonlySet<string>;
  readonly marks?: ReadonlyMap<string, FrameMark>;
  /** A span of volts to share with another strip. */
  readonly domain?: Volts;
  readonly label?: string;
  /** Little height: what joins is drawn tiny. */
  readonly low?: boolean;
}

/** The span of volts that a strip needs. */
export function stripDomain(predicted: Predicted, strip: StripModel): Volts {
  const views = [...frameViews(strip, predicted), ...strip.joinings.flatMap((j) => joiningViews(j, predicted))];
  return spanOf(views, endView(strip, predicted));
}

const spanOf = (views: readonly FrameView[], { wanted }: EndView): Volts =>
  domainOf([
    ...views.map((v) => v.bound),
    ...views.flatMap((v) => v.lost.map((l) => l.range)),
    ...(wanted ? [wanted] : []),
  ]);

function useStripModel(
  predicted: Predicted,
  strip: StripModel,
  size: Space,
  inHand: string | null,
  fold: boolean,
  given: Volts | undefined,
  low: boolean,
) {
  const pictures = useStore(predicted.pictures);
  const [steady] = useState(() => new Steady());
  return useMemo(() => {
    const views = steady.keep(frameViews(strip, predicted, pictures));
    const end = endView(strip, predicted);
    const joinings = strip.joinings.map((joining) => ({
      joining,
      views: joiningViews(joining, predicted, pictures),
      frame: strip.frames.findIndex((f) => f.module.inputs.includes(joining.into)),
    }));
    const domain = given ?? spanOf([...views, ...joinings.flatMap((j) => j.views)], end);
    const held = views.findIndex((v) => v.id === inHand);
    const folds = fold ? foldsOf(views.length, held, size.width) : views.map(() => false);
    const flat = layoutOf(folds, size, 0, domain);
    const blocks = joinings.map((j) => ({
      right: (flat.x[j.frame] ?? 0) + (flat.w[j.frame] ?? 0) / 2,
      frames: j.views.length,
    }));
    const count = (rows: readonly { row: number }[]): number => rows.reduce((most, r) => Math.max(most, r.row + 1), 0);
    let rows = stackRows(blocks, 0);
    if (layoutOf(folds, size, count(rows), domain, low).small === TINY) rows = stackRows(blocks, 0, TINY);
    const placed: PlacedJoining[] = joinings.map((j, i) => ({ ...j, ...(rows[i] ?? { row: 0, shown: 1 }) }));
    const layout = layoutOf(folds, size, count(rows), domain, low);
    return { views, end, placed, layout };
  }, [predicted, strip, size, inHand, fold, given, low, pictures, steady]);
}

// Plain styles, since the strip is drawn with every move of a knob; what is drawn in it touches nothing outside.
const stripStyle = {
  flex: 1,
  minHeight: 260,
  display: 'flex',
  flexDirection: 'column',
  position: 'relative',
  contain: 'layout paint',
} as const;
const lowStyle = { ...stripStyle, minHeight: 0 } as const;
const scrollerStyle = { flex: 1, minHeight: 0, overflow: 'auto', position: 'relative' } as const;

/** The strip: a path as frames on one volts ruler. */
export function Strip(props: Props) {
  const { predicted, strip, chosen = [], proposed, marks, domain, onChoose, onOpenJoining, onMove } = props;
  const [box, size] = useSize<HTMLDivElement>({ width: 740, height: 440 });
  const [fold, setFold] = useState(true);
  const model = useStripModel(predicted, strip, size, chosen[0] ?? null, fold, domain, props.low ?? false);
  const { views, end, placed, layout } = model;
  const { duration } = predicted.graph.patch.settings;
  const long = !fits(views.length, size.width);
  return (
    <div style={props.low ? lowStyle : stripStyle}>
      {layout.width > size.width + 1 && (
        <Miniature views={views} layout={layout} scroller={box} width={size.width - 156} />
      )}
      {long && (
        <Button
          onClick={() => setFold(!fold)}
          aria-pressed={fold}
          sx={{ position: 'absolute', right: 8, top: 4, zIndex: 2 }}
        >
          {fold ? 'Unfold the frames' : 'Fold to fit'}
        </Button>
      )}
      <div ref={box} style={scrollerStyle} data-testid="strip">
        <svg
          width={layout.width}
          height={layout.height}
          role="group"
          aria-label={props.label ?? 'The path as frames on one volts ruler'}
          display="block"
          onPointerMove={(e) => {
            const left = e.currentTarget.getBoundingClientRect().left;
            pointAt(momentUnder(e.clientX - left, layout, duration));
          }}
          onPointerLeave={() => pointAt(null)}
        >
          <HatchPattern />
          <VoltsRuler layout={layout} />
          {views.slice(1).map((to, i) => (
            <Connector key={to.key} from={views[i] as FrameView} to={to} index={i} layout={layout} />
          ))}
          {placed.map((p) => (
            <JoiningStrip
              key={p.joining.into.socket}
              placed={p}
              layout={layout}
              end={strip.frames.at(-1)?.input?.socket}
              onOpen={(socket) => onOpenJoining?.(socket)}
            />
          ))}
          {views.map((view, i) => (
            <FrameGraphic
              key={view.key}
              view={view}
              index={i}
              layout={layout}
              chosen={chosen.includes(view.id)}
              proposed={proposed?.has(view.id) ?? false}
              mark={marks?.get(view.id) ?? null}
              onChoose={(more) => onChoose?.(view.id, more)}
            />
          ))}
          <UnitRuler layout={layout} end={end} />
          <Wanted layout={layout} end={end} />
          <MomentMarks views={views} layout={layout} duration={duration} />
        </svg>
        {onMove && (
          <Handles strip={strip} layout={layout} onMove={onMove} onInsert={props.onInsert} onFeed={props.onFeed} />
        )}
      </div>
    </div>
  );
}
