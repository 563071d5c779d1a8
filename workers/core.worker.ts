import { expose, transfer } from 'comlink';
import { BoundsEngine, buildGraph, measure, needsAudioRate, predictGraph, Simulator, upstreamOf } from '../core';
import type { Simulation } from '../core';
import type { CoreWorker, FullAnswer, PictureData, PreviewAnswer } from './protocol';

/** Slow voltages alone are drawn at this rate while a knob turns; the whole run that follows takes the patch's own. */
const CONTROL_RATE = 8000;

const engine = new BoundsEngine();
const simulator = new Simulator();

function pictures(simulation: Simulation): Map<string, PictureData> {
  return new Map([...simulation.pictures].map(([socket, { min, max }]) => [socket, { min, max }]));
}

const worker: CoreWorker = {
  preview({ patch, sockets, columns }): PreviewAnswer {
    const start = performance.now();
    const graph = buildGraph(patch);
    const slow = patch.settings.sampleRate === 'auto' && !needsAudioRate(upstreamOf(graph, sockets).graph);
    const simulation = simulator.run(slow ? { ...graph, sampleRate: CONTROL_RATE } : graph, {
      columns,
      only: sockets,
      sparing: true,
    });
    return {
      pictures: pictures(simulation),
      sampleRate: simulation.sampleRate,
      milliseconds: performance.now() - start,
    };
  },
  full({ patch, columns, probes }): FullAnswer {
    const start = performance.now();
    const graph = buildGraph(patch);
    const { prediction, simulation } = predictGraph(graph, engine.run(graph), {
      columns,
      traces: probes,
      sparing: true,
    });
    const traces = [...simulation.traces].map(([socket, trace]) => {
      return [socket, { trace: Float32Array.from(trace), measures: measure(trace, simulation.sampleRate) }] as const;
    });
    const answer: FullAnswer = {
      pictures: pictures(simulation),
      sampleRate: simulation.sampleRate,
      prediction,
      probes: new Map(traces),
      milliseconds: performance.now() - start,
    };
    return transfer(
      answer,
      traces.map(([, { trace }]) => trace.buffer),
    );
  },
};

expose(worker);
