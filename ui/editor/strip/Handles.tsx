'use client';
import { inSentence, socketLabel } from '@/core';
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { memo } from 'react';
import type { Strip } from '@/core';
import { AddIcon, GripIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import { sameLayout } from './geometry';
import type { Layout } from './geometry';
import { INSERT, insertTop } from './labels';

interface Props {
  readonly strip: Strip;
  readonly views: readonly FrameView[];
  readonly layout: Layout;
  readonly onInsert: ((input: string) => void) | undefined;
  readonly onFeed: ((input: string) => void) | undefined;
  readonly onMove: (id: string, before: string) => void;
}

/** The same places for the same stages: what is done there is always about the patch as it is. */
const same = (a: Props, b: Props): boolean =>
  sameLayout(a.layout, b.layout) &&
  namesOf(a.strip) === namesOf(b.strip) &&
  insertTops(a).join() === insertTops(b).join();

/** Where the button before each frame but the first stands. */
const insertTops = ({ views, layout }: Props): number[] =>
  views.slice(1).map((view, i) => insertTop(view.arrives, layout, layout.folded[i + 1] ?? false));

const namesOf = ({ frames }: Strip): string =>
  frames.map((f) => `${f.module.id} ${f.module.label} ${f.input?.socket} ${f.input?.driver.type}`).join('\n');

/** What lies over the drawing: where stages are taken by, put in, and dropped. */
export const Handles = memo(function Handles(props: Props) {
  const { strip, layout, onInsert, onFeed, onMove } = props;
  const tops = insertTops(props);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const first = strip.frames[0];
  const movable = strip.frames.slice(0, -1).filter((f) => f.module.kind.category === 'between');
  return (
    <DndContext
      id="strip"
      sensors={sensors}
      onDragEnd={({ active, over }) => over && onMove(String(active.id), String(over.id))}
    >
      {strip.frames.slice(1).map((frame, i) => (
        <Gap
          key={frame.input?.socket}
          socket={frame.input?.socket ?? ''}
          before={frame.module.label}
          left={(layout.x[i] ?? 0) + (layout.w[i] ?? 0) + layout.gap / 2}
          layout={layout}
          top={tops[i] ?? layout.top}
          narrow={(layout.folded[i] ?? false) && (layout.folded[i + 1] ?? false)}
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
          {`Choose a source for ${inSentence(socketLabel(first.module.kind, first.input.spec.name))}`}
        </Button>
      )}
    </DndContext>
  );
}, same);

interface GapProps {
  readonly socket: string;
  readonly before: string;
  readonly left: number;
  readonly layout: Layout;
  /** Of the button. */
  readonly top: number;
  /** Between two folded frames there is no room for a button: choose one of them first. */
  readonly narrow: boolean;
  readonly onInsert: () => void;
}

function Gap({ socket, before, left, layout, top, narrow, onInsert }: GapProps) {
  const { setNodeRef, isOver, active } = useDroppable({ id: socket });
  return (
    <Box
      ref={setNodeRef}
      data-over={isOver ? socket : undefined}
      sx={{
        position: 'absolute',
        left: left - INSERT / 2,
        top: layout.top,
        width: INSERT,
        height: layout.bottom - layout.top,
        pointerEvents: 'none',
        borderRadius: 1,
        ...(active && { border: `1px dashed ${ink.wanted}` }),
        ...(isOver && { background: ink.wanted, opacity: 0.5 }),
      }}
    >
      {!narrow && (
        <IconButton
          aria-label={`Insert a stage before ${before}`}
          onClick={onInsert}
          sx={{
            position: 'absolute',
            left: 0,
            top: top - layout.top,
            width: INSERT,
            height: INSERT,
            pointerEvents: 'auto',
            border: `1px solid ${ink.line}`,
            background: ink.raised,
            color: ink.ink,
          }}
        >
          <AddIcon fontSize="small" />
        </IconButton>
      )}
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
      title={`Drag to reorder ${label}`}
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
      <GripIcon sx={{ fontSize: 18 }} />
    </Box>
  );
}
