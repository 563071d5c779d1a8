import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { createStore } from 'zustand';
import type { StoreApi } from 'zustand';
import { BoundsEngine, buildGraph, endsOf, glance, idOf, standingsIn, needsTrace, settingOf, stripTo } from '@/core';
import type { Finding, Graph, TargetStanding, ModuleBounds, Patch, Prediction, Range, Strip } from '@/core';
import { openCore } from './coreClient';
import type { CoreClient } from './coreClient';
import { arrivalsIn, withArrivals } from './lastArrivals';
import type { Progress } from './line';
import type { FullAnswer, PictureData } from '@/wire/core';

/** Columns of a picture in a frame. */
export const COLUMNS = 160;
/** The whole patch is simulated once nothing has moved for this long, milliseconds. */
const QUIET = 200;

export type Pictures = ReadonlyMap<string, PictureData>;

export interface Predicted {
  readonly graph: Graph;
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
  /** Bounds of this very patch; seen ranges and findings of the last simulation. */
  readonly prediction: Prediction;
  readonly ends: readonly string[];
  readonly strip: Strip | null;
  /** How each target stands: of this very patch, or, where only a trace tells, of the last simulation. */
  readonly missed: readonly TargetStanding[];
  /** The sockets whose traces the scope shows. */
  readonly shown: readonly string[];
  /** The part of the run that the frames show, seconds; null for all of it. */
  readonly window: Range | null;
  /** By socket; a store of its own, since only the strip is drawn again when they come. */
  readonly pictures: StoreApi<Pictures>;
  readonly full: FullAnswer | null;
  readonly failure: string | null;
  /** How far a run is that takes long; null while none does. */
  readonly progress: Progress;
  readonly cancel: () => void;
}

interface Simulated {
  readonly patch: Patch;
  readonly answer: FullAnswer;
  /** The findings with their cures, once those are checked. */
  readonly cured: readonly Finding[] | null;
}

const stripSockets = (strip: Strip | null): string[] => {
  const frames = [...(strip?.frames ?? []), ...(strip?.joinings ?? []).flatMap((j) => j.frames)];
  return frames.flatMap((f) => f.output ?? f.input?.socket ?? []);
};

/** Of the run, the part that the frames show: all, one period of this path, or some seconds. */
export type Span = 'whole' | 'period' | Range;

interface PredictionOptions {
  readonly whole?: boolean;
  /** Pinned sockets whose spectrum is looked at. */
  readonly spectra?: string;
  readonly span?: Span;
}

/** One period of what arrives at an end, where it repeats within the run; null for all of it. */
function windowOf(
  span: Span,
  { inputs }: Pick<Prediction, 'inputs'>,
  end: string | null,
  duration: number,
): Range | null {
  if (span === 'whole') return null;
  if (span !== 'period') return span;
  const period = (end === null ? null : inputs[end]?.repeatsEvery) ?? Infinity;
  return period < duration ? [0, period] : null;
}

/** What is pinned; until something is, the path's source and its end. */
function tracedSockets({ probes }: Patch, strip: Strip | null): string[] {
  if (probes.length > 0) return probes.map((p) => p.at);
  const frames = strip?.frames ?? [];
  const [source, end] = [frames[0]?.output, frames.at(-1)?.input?.socket];
  return [...(source ? [source] : []), ...(end ? [end] : [])];
}

/** Bounds at once, on the page. */
function useStill(patch: Patch) {
  // One engine for the life of the editor: it works out again only what a change touches.
  const [engine] = useState(() => new BoundsEngine());
  return useMemo(() => {
    const graph = buildGraph(patch);
    const bounds = engine.run(graph);
    const told = patch.targets.filter((t) => !needsTrace(graph, t));
    const missed = told.length > 0 ? standingsIn(told, settingOf(graph, engine, bounds)) : [];
    return { graph, bounds, missed, ends: endsOf(graph), prediction: glance(graph, bounds) };
  }, [patch, engine]);
}

/**
 * What a patch comes to: bounds at once; pictures soon, from a worker; and, unless it is only looked at, the whole
 * patch's simulation when the hand rests.
 */
export function usePrediction(
  patch: Patch,
  endSocket: string | null,
  { whole = true, spectra = '', span = 'whole' }: PredictionOptions = {},
): Predicted {
  const client = useRef<CoreClient | null>(null);
  const [pictures] = useState(() => createStore<Pictures>(() => new Map()));
  const [simulated, setSimulated] = useState<Simulated | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [progress, setProgress] = useState<Progress>(null);
  const cancel = useCallback(() => client.current?.cancel(), []);

  const still = useStill(patch);
  const end = endSocket ?? still.ends[0] ?? null;
  const strip = useMemo(() => (end === null ? null : stripTo(still.graph, end)), [still, end]);
  const traced = tracedSockets(patch, strip).join(' ');
  const [from, to] = windowOf(span, still.prediction, end, patch.settings.duration) ?? [null, null];
  const window = useMemo((): Range | null => (from === null || to === null ? null : [from, to]), [from, to]);

  useEffect(() => {
    const core = openCore({
      preview: (answer) => pictures.setState((old) => new Map([...old, ...answer.pictures]), true),
      full(of, answer) {
        setFailure(null);
        pictures.setState(answer.pictures, true);
        setSimulated({ patch: of, answer, cured: null });
      },
      cures: (of, { findings }) => setSimulated((now) => (now?.patch === of ? { ...now, cured: findings } : now)),
      failure: setFailure,
      progress: setProgress,
    });
    client.current = core;
    return () => core.close();
  }, [pictures]);

  const sockets = stripSockets(strip).join(' ');
  useEffect(() => {
    client.current?.preview({ patch, sockets: sockets.split(' ').filter(Boolean), window, columns: COLUMNS });
  }, [patch, sockets, window]);
  useEffect(() => {
    if (!whole) return;
    const probes = traced.split(' ').filter(Boolean);
    const wanted = spectra.split(' ').filter(Boolean);
    const { bounds } = still;
    const ask = (): void => client.current?.full({ patch, bounds, window, columns: COLUMNS, probes, spectra: wanted });
    const timer = setTimeout(ask, QUIET);
    return () => clearTimeout(timer);
  }, [patch, still, whole, spectra, traced, window]);

  const lasting = useMemo(() => simulated && arrivalsIn(simulated.answer.prediction), [simulated]);
  const known = simulated?.cured ?? simulated?.answer.prediction.findings;
  const findings = useMemo(() => standing(known ?? [], patch), [known, patch]);
  return useMemo(() => {
    const current = simulated?.patch === patch;
    const now = lasting ? withArrivals(still.prediction, lasting) : still.prediction;
    const prediction = { ...(current && simulated ? simulated.answer.prediction : now), findings };
    const shown = traced.split(' ').filter(Boolean);
    return {
      ...still,
      missed: [...still.missed, ...(simulated?.answer.missed ?? [])],
      prediction,
      strip,
      shown,
      window,
      pictures,
      full: simulated?.answer ?? null,
      failure,
      progress,
      cancel,
    };
  }, [still, strip, traced, window, pictures, simulated, lasting, patch, failure, findings, progress, cancel]);
}

/** Of the findings of a moment ago those that can still be meant: their module is there, and nobody dismissed them. */
function standing(findings: readonly Finding[], { modules, dismissed }: Patch): readonly Finding[] {
  const ids = new Set(modules.map((m) => m.id));
  return findings.filter((f) => ids.has(idOf(f.at)) && !dismissed.some((d) => d.code === f.code && d.at === f.at));
}
