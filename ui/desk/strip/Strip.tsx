'use client';
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import AddIcon from '@mui/icons-material/Add';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useMemo, useState } from 'react';
import type { Strip as StripModel } from '@/core';
import { useSize } from '@/ui/parts/useSize';
import { pointAt } from '@/ui/state/moment';
import { ink } from '@/ui/theme/tokens';
import type { Predicted } from '../usePrediction';
import { Connector, FrameGraphic, HatchPattern } from './FrameGraphic';
import type { FrameMark } from './FrameGraphic';
import { endView, frameViews, joiningViews } from './frames';
import type { FrameView } from './frames';
import { domainOf, fits, foldsOf, layoutOf, stackRows, TINY } from './geometry';
import type { Layout, Space, Volts } from './geometry';
import { JoiningStrip } from './JoiningStrips';
import type { PlacedJoining } from './JoiningStrips';
import { Miniature } from './Miniature';
import { MomentMarks, momentUnder } from './MomentMarks';
import { UnitRuler, VoltsRuler, Wanted } from './Rulers';

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
  const views = frameViews(strip, predicted);
  const joining = strip.joinings.flatMap((j) => joiningViews(j, predicted));
  const end = endView(strip, predicted);
  return domainOf([
    ...[...views, ...joining].map((v) => v.bound),
    ...[...views, ...joining].flatMap((v) => v.lost.map((l) => l.range)),
    ...(end.wanted ? [end.wanted] : []),
  ]);
}

function useStripModel(
  predicted: Predicted,
  strip: StripModel,
  size: Space,
  inHand: string | null,
  fold: boolean,
  given: Volts | undefined,
  low: boolean,
) {
  return useMemo(() => {
    const views = frameViews(strip, predicted);
    const end = endView(strip, predicted);
    const joinings = strip.joinings.map((joining) => ({
      joining,
      views: joiningViews(joining, predicted),
      frame: strip.frames.findIndex((f) => f.module.inputs.includes(joining.into)),
    }));
    const domain = given ?? stripDomain(predicted, strip);
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
  }, [predicted, strip, size, inHand, fold, given, low]);
}

/** The strip: a path as frames on one volts ruler. */
export function Strip(props: Props) {
  const { predicted, strip, chosen = [], proposed, marks, domain, onChoose, onOpenJoining, onMove } = props;
  const [box, size] = useSize<HTMLDivElement>({ width: 740, height: 440 });
  const [fold, setFold] = useState(true);
  const model = useStripModel(predicted, strip, size, chosen[0] ?? null, fold, domain, props.low ?? false);
  const { views, end, placed, layout } = model;
  const { duration } = predicted.graph.patch.settings;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const long = !fits(views.length, size.width);
  return (
    <Box
      sx={{ flex: 1, minHeight: props.low ? 0 : 260, display: 'flex', flexDirection: 'column', position: 'relative' }}
    >
      {layout.width > size.width + 1 && <Miniature views={views} layout={layout} scroller={box} width={size.width} />}
      {long && (
        <Button
          onClick={() => setFold(!fold)}
          aria-pressed={fold}
          sx={{ position: 'absolute', right: 8, top: 4, zIndex: 2 }}
        >
          {fold ? 'Unfold the frames' : 'Fold to fit'}
        </Button>
      )}
      <DndContext
        id="strip"
        sensors={sensors}
        onDragEnd={({ active, over }) => over && onMove?.(String(active.id), String(over.id))}
      >
        <Box
          ref={box}
          sx={{ flex: 1, minHeight: 0, overflowX: 'auto', overflowY: 'auto', position: 'relative' }}
          data-testid="strip"
        >
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
                onOpen={() => onOpenJoining?.(p.joining.into.socket)}
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
          {onMove && <Handles {...props} layout={layout} />}
        </Box>
      </DndContext>
    </Box>
  );
}

/** What lies over the drawing: where stages are taken by, put in, and dropped. */
function Handles({ strip, layout, onInsert, onFeed }: Props & { layout: Layout }) {
  const first = strip.frames[0];
  const movable = strip.frames.slice(0, -1).filter((f) => f.module.kind.room === 'between');
  return (
    <>
      {strip.frames.slice(1).map((frame, i) => (
        <Gap
          key={frame.input?.socket}
          socket={frame.input?.socket ?? ''}
          before={frame.module.label}
          left={(layout.x[i] ?? 0) + (layout.w[i] ?? 0) + layout.gap / 2}
          layout={layout}
          onInsert={() => onInsert?.(frame.input?.socket ?? '')}
        />
      ))}
      {movable.map((frame) => {
        const i = strip.frames.indexOf(frame);
        const right = (layout.x[i] ?? 0) + (layout.w[i] ?? 0);
        return layout.folded[i] ? null : (
          <Grip
            key={frame.module.id}
            id={frame.module.id}
            label={frame.module.label}
            left={right - 18}
            top={layout.top - 40}
          />
        );
      })}
      {first?.input && first.input.driver.type !== 'output' && (
        <Button
          color="primary"
          onClick={() => onFeed?.(first.input?.socket ?? '')}
          sx={{ position: 'absolute', left: (layout.x[0] ?? 0) + 8, top: layout.bottom - 40, zIndex: 1 }}
        >
          {`Choose what drives ${first.input.spec.name}`}
        </Button>
      )}
    </>
  );
}

interface GapProps {
  readonly socket: string;
  readonly before: string;
  readonly left: number;
  readonly layout: Layout;
  readonly onInsert: () => void;
}

function Gap({ socket, before, left, layout, onInsert }: GapProps) {
  const { setNodeRef, isOver, active } = useDroppable({ id: socket });
  return (
    <Box
      ref={setNodeRef}
      data-over={isOver ? socket : undefined}
      sx={{
        position: 'absolute',
        left: left - 12,
        top: layout.top,
        width: 24,
        height: layout.bottom - layout.top,
        pointerEvents: 'none',
        borderRadius: 1,
        ...(active && { border: `1px dashed ${ink.wanted}` }),
        ...(isOver && { background: ink.wanted, opacity: 0.5 }),
      }}
    >
      <IconButton
        aria-label={`Insert a stage before ${before}`}
        onClick={onInsert}
        sx={{
          position: 'absolute',
          left: 0,
          bottom: 6,
          width: 24,
          height: 24,
          pointerEvents: 'auto',
          border: `1px solid ${ink.line}`,
          background: ink.raised,
          color: ink.ink,
        }}
      >
        <AddIcon fontSize="small" />
      </IconButton>
    </Box>
  );
}

/** What a stage is dragged by; the keys for it are Alt with the arrows. */
function Grip({ id, label, left, top }: { id: string; label: string; left: number; top: number }) {
  const { setNodeRef, listeners, transform } = useDraggable({ id });
  return (
    <Box
      ref={setNodeRef}
      {...listeners}
      title={`Drag ${label} to another place`}
      data-grip={id}
      sx={{
        position: 'absolute',
        left,
        top,
        width: 18,
        height: 20,
        cursor: 'grab',
        color: ink.softInk,
        touchAction: 'none',
        zIndex: 1,
        ...(transform && { transform: `translate(${transform.x}px, ${transform.y}px)`, color: ink.wanted }),
      }}
    >
      <DragIndicatorIcon sx={{ fontSize: 18 }} />
    </Box>
  );
}
