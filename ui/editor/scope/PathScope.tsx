'use client';
import { useState } from 'react';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import { hearing } from '@/ui/session/hearing';
import type { Predicted } from '@/ui/session/usePrediction';
import { usePins, useTraces } from './pins';
import { Scope } from './Scope';
import type { Window } from './view';

const LiveTraces = later(() => import('./LiveTraces').then((m) => m.LiveTraces));

interface Props {
  readonly predicted: Predicted;
  readonly view: Window | null;
  readonly onView: (view: Window | null) => void;
  readonly onSpectra: (sockets: string) => void;
}

/** What is pinned over time, as simulated; while it plays, as it is heard. */
export function PathScope({ predicted, view, onView, onSpectra }: Props) {
  const { patch } = predicted.graph;
  const pins = usePins(predicted);
  const traces = useTraces(predicted, pins);
  const plays = useStore(hearing, (s) => s.playing);
  const [window, setWindow] = useState(false);
  if (plays && !window)
    return <LiveTraces pins={pins} prediction={predicted.prediction} onWindow={() => setWindow(true)} />;
  return (
    <Scope
      {...{ pins, traces, view, onView, onSpectra }}
      name={patch.name}
      standIn={patch.probes.length === 0}
      full={predicted.full}
      progress={predicted.progress}
      onCancel={predicted.cancel}
      duration={patch.settings.duration}
    />
  );
}
