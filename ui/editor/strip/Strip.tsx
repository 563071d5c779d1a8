'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { Strip as StripModel } from '@/core';
import { later } from '@/ui/parts/later';
import { useSize } from '@/ui/parts/useSize';
import { ghost } from '@/ui/session/ghost';
import { hearing } from '@/ui/session/hearing';
import { pointAt } from '@/ui/session/moment';
import type { Predicted } from '@/ui/session/usePrediction';
import { HatchPattern } from './Bands';
import { Connector, FrameGraphic } from './FrameGraphic';
import type { FrameMark } from './FrameGraphic';
import type { FrameView } from './frames';
import { fits } from './geometry';
import type { Volts } from './geometry';
import { JoiningStrip } from './JoiningStrips';
import { useStripModel } from './model';
import { MomentMarks, momentUnder } from './MomentMarks';
import { Bracket } from './Bracket';
import { SoftEdges } from './SoftEdges';
import { UnitRuler, VoltsRuler } from './Rulers';
import { TimeRuler } from './TimeRuler';

const Miniature = later(() => import('./Miniature').then((m) => m.Miniature));
const GhostMarks = later(() => import('./GhostMarks').then((m) => m.GhostMarks));
const LiveMarks = later(() => import('./LiveMarks').then((m) => m.LiveMarks));
const Handles = later(() => import('./Handles').then((m) => m.Handles));

export interface StripActions {
  readonly onChoose: (id: string, more: boolean) => void;
  /** A click on none of the stages. */
  readonly onBackground: () => void;
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
  /** What plays is shown in it, unless it is not what is heard. */
  readonly live?: boolean;
  /** Modules whose voltages are not shown. */
  readonly covered?: ReadonlySet<string>;
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
/** Over the frames, so that it lies on none of their names. */
const barStyle = { display: 'flex', alignItems: 'center', minHeight: 36, padding: '2px 8px 0 0' } as const;
/** What the button takes beside the miniature, pixels. */
const BESIDE = 160;
/** Under this width there is no room for a miniature beside the button, pixels. */
const NARROW = 320;
const lowStyle = { ...stripStyle, minHeight: 0 } as const;
const scrollerStyle = { flex: 1, minHeight: 0, overflow: 'auto', position: 'relative' } as const;

/** The strip: a path as frames on one volts ruler and one of time. */
export function Strip(props: Props) {
  const { predicted, strip, chosen = [], domain, onMove } = props;
  const [box, size] = useSize<HTMLDivElement>({ width: 740, height: 440 });
  const [fold, setFold] = useState(true);
  const model = useStripModel(
    predicted,
    strip,
    size,
    chosen[0] ?? null,
    fold,
    domain,
    props.low ?? false,
    props.covered,
  );
  const { views, layout } = model;
  const plays = useStore(hearing, (s) => s.playing);
  const fault = useStore(ghost, (s) => s.shown);
  const long = !fits(views.length, size.width);
  return (
    <div style={props.low ? lowStyle : stripStyle}>
      {long && (
        <div style={barStyle}>
          {layout.width > size.width + 1 && size.width > NARROW && (
            <Miniature views={views} layout={layout} scroller={box} width={size.width - BESIDE} />
          )}
          <Button onClick={() => setFold(!fold)} aria-pressed={fold} sx={{ ml: 'auto' }}>
            {fold ? 'Expand' : 'Fit to width'}
          </Button>
        </div>
      )}
      <div
        ref={box}
        style={scrollerStyle}
        data-testid="strip"
        onClick={(e) => {
          if (!(e.target as Element).closest('[data-frame], [data-joining], [role], button')) props.onBackground?.();
        }}
      >
        <Drawing {...props} model={model} />
        {plays && props.live !== false && <LiveMarks strip={strip} layout={layout} />}
        {fault && onMove && <GhostMarks patch={predicted.graph.patch} strip={strip} layout={layout} shown={fault} />}
        {onMove && (
          <Handles
            strip={strip}
            views={views}
            layout={layout}
            onMove={onMove}
            onInsert={props.onInsert}
            onFeed={props.onFeed}
          />
        )}
      </div>
    </div>
  );
}

function Drawing({ model, ...props }: Props & { readonly model: ReturnType<typeof useStripModel> }) {
  const { predicted, strip, chosen = [], proposed, marks, onChoose, onOpenJoining } = props;
  const { views, end, placed, layout } = model;
  const window = predicted.window ?? ([0, predicted.graph.patch.settings.duration] as const);
  return (
    <svg
      width={layout.width}
      height={layout.height}
      role="group"
      aria-label={props.label ?? 'Signal path: stages on a common voltage scale'}
      display="block"
      onPointerMove={(e) => {
        const left = e.currentTarget.getBoundingClientRect().left;
        pointAt(momentUnder(e.clientX - left, layout, window));
      }}
      onPointerLeave={() => pointAt(null)}
    >
      <HatchPattern />
      <VoltsRuler layout={layout} />
      <TimeRuler layout={layout} window={window} />
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
      {props.onMove !== undefined && <SoftEdges patch={predicted.graph.patch} views={views} layout={layout} />}
      <UnitRuler layout={layout} end={end} />
      <Bracket layout={layout} end={end} held={props.onMove !== undefined} />
      <MomentMarks views={views} layout={layout} window={window} />
    </svg>
  );
}
