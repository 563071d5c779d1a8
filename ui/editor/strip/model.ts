import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import type { Strip as StripModel } from '@/core';
import { domainOf } from '@/ui/parts/domain';
import type { Predicted } from '@/ui/session/usePrediction';
import { coveredView, endView, frameViews, joiningViews, Steady } from './frames';
import type { EndView, FrameView } from './frames';
import { foldsOf, layoutOf, TINY } from './geometry';
import { joiningRooms, stackRows } from './rows';
import type { Space, Volts } from './geometry';
import type { PlacedJoining } from './JoiningStrips';

/** The span of volts that a strip needs. */
export function stripDomain(predicted: Predicted, strip: StripModel): Volts {
  const views = [...frameViews(strip, predicted), ...strip.joinings.flatMap((j) => joiningViews(j, predicted))];
  return rulerOf(views, endView(strip, predicted));
}

const rulerOf = (views: readonly FrameView[], { wanted }: EndView): Volts =>
  domainOf([
    ...views.map((v) => v.bound),
    ...views.flatMap((v) => v.lost.map((l) => l.range)),
    ...(wanted ? wanted.filter((v) => v !== null).map((v): Volts => [v, v]) : []),
  ]);

const UNCOVERED: ReadonlySet<string> = new Set();

/** What a strip shows, and where all of it stands. @param covered modules whose voltages are not shown. */
export function useStripModel(
  predicted: Predicted,
  strip: StripModel,
  size: Space,
  inHand: string | null,
  fold: boolean,
  given: Volts | undefined,
  low: boolean,
  covered: ReadonlySet<string> = UNCOVERED,
) {
  const pictures = useStore(predicted.pictures);
  const [steady] = useState(() => new Steady());
  return useMemo(() => {
    const seen = (list: readonly FrameView[]): FrameView[] => list.map((v) => (covered.has(v.id) ? coveredView(v) : v));
    const views = steady.keep(seen(frameViews(strip, predicted, pictures)));
    const end = endView(strip, predicted);
    const joinings = strip.joinings.map((joining) => ({
      joining,
      views: seen(joiningViews(joining, predicted, pictures)),
      frame: strip.frames.findIndex((f) => f.module.inputs.includes(joining.into)),
    }));
    const domain = given ?? rulerOf([...views, ...joinings.flatMap((j) => j.views)], end);
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
    const layout = layoutOf(folds, size, count(rows), domain, low);
    const rooms = joiningRooms(blocks, rows, layout.small);
    const placed: PlacedJoining[] = joinings.map((j, i) => ({
      ...j,
      ...(rows[i] ?? { row: 0, shown: 1 }),
      room: rooms[i] ?? Infinity,
    }));
    return { views, end, placed, layout };
  }, [predicted, strip, size, inHand, fold, given, low, pictures, steady, covered]);
}
