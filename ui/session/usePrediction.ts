import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { createStore } from 'zustand';
import type { StoreApi } from 'zustand';
import { BoundsEngine, buildGraph, endsOf, glance, idOf, stripTo } from '@/core';
import type { Finding, Graph, ModuleBounds, Patch, Prediction, Strip } from '@/core';
import { openCore } from './coreClient';
import type { CoreClient } from './coreClient';
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

const socketsOf = (strip: Strip | null): string[] => {
  const frames = [...(strip?.frames ?? []), ...(strip?.joinings ?? []).flatMap((j) => j.frames)];
  return frames.flatMap((f) => f.output ?? f.input?.socket ?? []);
};

/** Bounds at once, on the page. */
function useStill(patch: Patch) {
  // One engine for the life of the desk: it works out again only what a change touches.
  const [engine] = useState(() => new BoundsEngine());
  return useMemo(() => {
    const graph = buildGraph(patch);
    const bounds = engine.run(graph);
    return { graph, bounds, ends: endsOf(graph), prediction: glance(graph, bounds) };
  }, [patch, engine]);
}

/**
 * What a patch comes to: bounds at once; pictures soon, from a worker; and, unless it is only looked at, the whole
 * patch's simulation when the hand rests.
 *
 * @param spectra pinned sockets whose spectrum is looked at.
 */
export function usePrediction(
  patch: Patch,
  endSocket: string | null,
  { whole = true, spectra = '' }: { readonly whole?: boolean; readonly spectra?: string } = {},
): Predicted {
  const client = useRef<CoreClient | null>(null);
  const [pictures] = useState(() => createStore<Pictures>(() => new Map()));
  const [simulated, setSimulated] = useState<Simulated | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [progress, setProgress] = useState<Progress>(null);
  const cancel = useCallback(() => client.current?.cancel(), []);

  const still = useStill(patch);
  const shown = endSocket ?? still.ends[0] ?? null;
  const strip = useMemo(() => (shown === null ? null : stripTo(still.graph, shown)), [still, shown]);

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

  const sockets = socketsOf(strip).join(' ');
  useEffect(() => {
    client.current?.preview({ patch, sockets: sockets.split(' ').filter(Boolean), columns: COLUMNS });
  }, [patch, sockets]);
  useEffect(() => {
    if (!whole) return;
    const probes = patch.probes.map((p) => p.at);
    const wanted = spectra.split(' ').filter(Boolean);
    const { bounds } = still;
    const ask = (): void => client.current?.full({ patch, bounds, columns: COLUMNS, probes, spectra: wanted });
    const timer = setTimeout(ask, QUIET);
    return () => clearTimeout(timer);
  }, [patch, still, whole, spectra]);

  const known = simulated?.cured ?? simulated?.answer.prediction.findings;
  const findings = useMemo(() => standing(known ?? [], patch), [known, patch]);
  return useMemo(() => {
    const current = simulated?.patch === patch;
    const prediction = { ...(current && simulated ? simulated.answer.prediction : still.prediction), findings };
    return { ...still, prediction, strip, pictures, full: simulated?.answer ?? null, failure, progress, cancel };
  }, [still, strip, pictures, simulated, patch, failure, findings, progress, cancel]);
}

/** Of the findings of a moment ago those that can still be meant: their module is there, and nobody dismissed them. */
function standing(findings: readonly Finding[], { modules, dismissed }: Patch): readonly Finding[] {
  const ids = new Set(modules.map((m) => m.id));
  return findings.filter((f) => ids.has(idOf(f.at)) && !dismissed.some((d) => d.code === f.code && d.at === f.at));
}
