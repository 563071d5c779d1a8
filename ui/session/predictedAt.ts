import { createStore } from 'zustand';
import { BoundsEngine, endsOf, glance, stripTo } from '@/core';
import type { Graph } from '@/core';
import type { Predicted } from './usePrediction';

/** What is known of a graph before anything ran: its bounds, and the strip to one socket; what tests of screens begin from. */
export function predictedAt(graph: Graph, socket: string | undefined): Predicted {
  const bounds = new BoundsEngine().run(graph);
  return {
    graph,
    bounds,
    ends: endsOf(graph),
    missed: [],
    prediction: { ...glance(graph, bounds), findings: [] },
    strip: socket === undefined ? null : stripTo(graph, socket),
    shown: [],
    window: null,
    pictures: createStore(() => new Map()),
    full: null,
    failure: null,
    progress: null,
    cancel: () => undefined,
  };
}
