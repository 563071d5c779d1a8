'use client';
import AddIcon from '@mui/icons-material/Add';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { useMemo, useState } from 'react';
import type { Strip as StripModel } from '@/core';
import { useSize } from '@/ui/parts/useSize';
import { ink } from '@/ui/theme/tokens';
import type { Predicted } from '../usePrediction';
import { Connector, FrameGraphic, HatchPattern } from './FrameGraphic';
import { endView, frameViews, joiningViews } from './frames';
import { domainOf, GAP, layoutOf, stackRows } from './geometry';
import { InsertMenu } from './InsertMenu';
import { JoiningStrip } from './JoiningStrips';
import type { PlacedJoining } from './JoiningStrips';
import { UnitRuler, VoltsRuler, Wanted } from './Rulers';

interface Props {
  readonly predicted: Predicted;
  readonly strip: StripModel;
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
  readonly onOpenJoining: (socket: string) => void;
  readonly onInsert: (input: string, kind: string) => void;
}

function useStripModel(predicted: Predicted, strip: StripModel, size: { width: number; height: number }) {
  return useMemo(() => {
    const views = frameViews(strip, predicted);
    const end = endView(strip, predicted);
    const joinings = strip.joinings.map((joining) => ({
      joining,
      views: joiningViews(joining, predicted),
      frame: strip.frames.findIndex((f) => f.module.inputs.includes(joining.into)),
    }));
    const all = [...views, ...joinings.flatMap((j) => j.views)];
    const domain = domainOf([
      ...all.map((v) => v.bound),
      ...all.flatMap((v) => v.lost.map((l) => l.range)),
      ...(end.wanted ? [end.wanted] : []),
    ]);
    const flat = layoutOf(views.length, size, 0, domain);
    const rows = stackRows(
      joinings.map((j) => ({ right: (flat.x[j.frame] ?? 0) + flat.frameWidth / 2, frames: j.views.length })),
      0,
    );
    const count = rows.reduce((most, r) => Math.max(most, r.row + 1), 0);
    const placed: PlacedJoining[] = joinings.map((j, i) => ({ ...j, ...(rows[i] ?? { row: 0, shown: 1 }) }));
    return { views, end, placed, layout: layoutOf(views.length, size, count, domain) };
  }, [predicted, strip, size]);
}

/** The strip: a path as frames on one volts ruler. */
export function Strip({ predicted, strip, chosen, onChoose, onOpenJoining, onInsert }: Props) {
  const [box, size] = useSize<HTMLDivElement>({ width: 740, height: 440 });
  const { views, end, placed, layout } = useStripModel(predicted, strip, size);
  const [insert, setInsert] = useState<{ anchor: HTMLElement; socket: string } | null>(null);
  return (
    <Box
      ref={box}
      sx={{ flex: 1, minHeight: 260, overflowX: 'auto', overflowY: 'auto', position: 'relative' }}
      data-testid="strip"
    >
      <svg
        width={layout.width}
        height={layout.height}
        role="group"
        aria-label="The path as frames on one volts ruler"
        display="block"
      >
        <HatchPattern />
        <VoltsRuler layout={layout} />
        {views.slice(1).map((to, i) => (
          <Connector key={to.key} from={views[i] as (typeof views)[number]} to={to} index={i} layout={layout} />
        ))}
        {placed.map((p) => (
          <JoiningStrip
            key={p.joining.into.socket}
            placed={p}
            layout={layout}
            onOpen={() => onOpenJoining(p.joining.into.socket)}
          />
        ))}
        {views.map((view, i) => (
          <FrameGraphic
            key={view.key}
            view={view}
            index={i}
            layout={layout}
            chosen={chosen === view.id}
            onChoose={() => onChoose(view.id)}
          />
        ))}
        <UnitRuler layout={layout} end={end} />
        <Wanted layout={layout} end={end} />
      </svg>
      {strip.frames.slice(1).map((frame, i) => (
        <IconButton
          key={frame.input?.socket}
          aria-label={`Insert a stage before ${frame.module.label}`}
          onClick={(e) => setInsert({ anchor: e.currentTarget, socket: frame.input?.socket ?? '' })}
          sx={{
            position: 'absolute',
            left: (layout.x[i] ?? 0) + layout.frameWidth + GAP / 2 - 12,
            top: layout.bottom - 30,
            width: 24,
            height: 24,
            border: `1px solid ${ink.line}`,
            background: ink.raised,
            color: ink.ink,
          }}
        >
          <AddIcon fontSize="small" />
        </IconButton>
      ))}
      <InsertMenu
        anchor={insert?.anchor ?? null}
        onClose={() => setInsert(null)}
        onPick={(kind) => {
          if (insert) onInsert(insert.socket, kind);
          setInsert(null);
        }}
      />
    </Box>
  );
}
